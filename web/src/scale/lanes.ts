/** One camera's lane: where it stands, how wide it is and how wide its rope at full charge. */
export interface LaneAt {
  x: number;
  w: number;
  rope: number;
  /** From the lane's edge to its rope's spine: the wall that heat grows to. */
  spine: number;
  /** Nothing is asked of it in what is shown: a thin cord that gives its room to the others. */
  idle: boolean;
}

/** Where everything stands across the board, by the width there is and the cameras in use. */
export interface Lanes {
  phone: boolean;
  clockX: number;
  lightX: number;
  lightW: number;
  groundX: number;
  groundW: number;
  wordsX: number;
  wordsW: number;
  /** The one column with words about events; a phone has none. */
  telling: { x: number; w: number } | null;
  firstX: number;
  at: readonly LaneAt[];
  width: number;
}

const PHONE_MAX = 560;
const NARROW_MAX = 820;
const IDLE_PX = 28;
const IDLE_ROPE = 10;
const WALL = 12;
const CARD_ROOM = 22;
const LANE_LEAST = 46;
const LANE_MOST = 132;
const ROPE_LEAST = 20;
const ROPE_MOST = 96;
const LANE_WISHED = 120;
const TELLING_LEAST = 218;
const TELLING_MOST = 380;
const NARROW_TELLING = 168;
export const STRIP_PX = 300;

type Rails = Omit<Lanes, "at" | "width" | "telling" | "firstX">;

const WIDE_RAILS: Rails = {
  phone: false,
  clockX: 0,
  lightX: 50,
  lightW: 8,
  groundX: 62,
  groundW: 46,
  wordsX: 116,
  wordsW: 150,
};
const NARROW_RAILS: Rails = { ...WIDE_RAILS, groundW: 22, wordsX: 90, wordsW: 106 };
const PHONE_RAILS: Rails = {
  ...WIDE_RAILS,
  phone: true,
  lightX: 58,
  lightW: 4,
  groundX: 0,
  groundW: 0,
  wordsX: 4,
  wordsW: 52,
};
const PHONE_FIRST = 64;

/** Lanes of the board; `idle` says for each camera whether nothing is asked of it in what is shown. */
export function lanesOf(width: number, idle: readonly boolean[]): Lanes {
  if (width < PHONE_MAX) return phoneLanes(width, idle.length);
  const rails = width < NARROW_MAX ? NARROW_RAILS : WIDE_RAILS;
  const busy = Math.max(1, idle.filter((one) => !one).length);
  const cords = idle.filter(Boolean).length * IDLE_PX;
  const tellingX = rails.wordsX + rails.wordsW;
  const least = width < NARROW_MAX ? NARROW_TELLING : TELLING_LEAST;
  const wished = width - tellingX - cords - busy * LANE_WISHED;
  const telling = { x: tellingX, w: Math.min(TELLING_MOST, Math.max(least, wished)) };
  const firstX = tellingX + telling.w;
  const lane = Math.min(LANE_MOST, Math.max(LANE_LEAST, (width - firstX - cords) / busy));
  const at = laid(firstX, idle, lane);
  return { ...rails, telling, firstX, at, width: Math.max(width, endOf(at, firstX)) };
}

/** Many narrow ropes side by side, for states that are compared; words only where there is room. */
export function variantLanes(width: number, count: number): Lanes {
  const bare = width < PHONE_MAX;
  const rails = bare ? PHONE_RAILS : WIDE_RAILS;
  const firstX = bare ? PHONE_FIRST : WIDE_RAILS.wordsX + 124;
  const w = Math.min(120, Math.max(46, (width - firstX) / Math.max(1, count)));
  const rope = Math.min(64, w - 26);
  const at = Array.from({ length: count }, (_, place) => ({
    x: firstX + place * w,
    w,
    rope,
    spine: WALL,
    idle: false,
  }));
  return { ...rails, telling: null, firstX, at, width: Math.max(width, endOf(at, firstX)) };
}

function laid(firstX: number, idle: readonly boolean[], lane: number): LaneAt[] {
  let x = firstX;
  return idle.map((thin) => {
    const w = thin ? IDLE_PX : lane;
    const made = thin
      ? { x, w, rope: IDLE_ROPE, spine: 8, idle: true }
      : { x, w, rope: ropeOf(lane), spine: WALL + 2, idle: false };
    x += w;
    return made;
  });
}

function ropeOf(lane: number): number {
  return Math.round(Math.min(ROPE_MOST, Math.max(ROPE_LEAST, lane - WALL - 2 - CARD_ROOM)));
}

function endOf(at: readonly LaneAt[], firstX: number): number {
  const last = at.at(-1);
  return last === undefined ? firstX : Math.floor(last.x + last.w);
}

function phoneLanes(width: number, count: number): Lanes {
  const w = (width - PHONE_FIRST) / Math.max(1, count);
  const wall = w >= 70 ? 12 : 9;
  const at = Array.from({ length: count }, (_, place) => ({
    x: PHONE_FIRST + place * w,
    w,
    rope: Math.max(ROPE_LEAST, Math.min(44, w - wall - 16)),
    spine: wall,
    idle: false,
  }));
  return { ...PHONE_RAILS, telling: null, firstX: PHONE_FIRST, at, width };
}

/** Left edge of the strip that opens over the telling; the ropes stay in sight beside it. */
export function stripLeft(lanes: Lanes): number {
  return Math.max(0, Math.min(lanes.firstX, lanes.width) - STRIP_PX - 4);
}
