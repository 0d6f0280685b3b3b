/** Where everything stands across the board, by the width there is and the number of cameras. */
export interface Lanes {
  phone: boolean;
  clockX: number;
  lightX: number;
  groundX: number;
  groundW: number;
  wordsX: number;
  wordsW: number;
  firstX: number;
  lane: number;
  rope: number;
  wall: number;
  spine: number;
  card: number;
  gutter: number;
  gutterW: number;
  /** Where the hands' work begins in a lane: in its gutter, or on a phone on the rope. */
  work: number;
  /** With many cameras the hands' work stands in a column of its own before the lanes. */
  hands: { x: number; w: number } | null;
  width: number;
}

const WALL = 14;
const PHONE_MAX = 640;
const HANDS_PX = 150;
const IN_GUTTERS = 5;
const SIDE_PX = 290;
export const STRIP_PX = 276;

export function lanesOf(width: number, cameras: number): Lanes {
  const count = Math.max(1, cameras);
  if (width < PHONE_MAX) return phoneLanes(width, count);
  const words = 246;
  const hands = count > IN_GUTTERS ? { x: words, w: HANDS_PX } : null;
  const rails = words + (hands ? hands.w + 6 : 0);
  const lane = Math.min(
    count <= 4 ? 184 : 176,
    Math.max(hands ? 92 : 108, (width - rails) / count),
  );
  const rope = count >= 7 ? 40 : lane >= 170 ? 64 : lane >= 140 ? 56 : lane >= 120 ? 48 : 40;
  const spine = WALL + 4;
  const card = spine + rope + 8;
  return {
    phone: false,
    clockX: 0,
    lightX: 50,
    groundX: 62,
    groundW: 52,
    wordsX: 122,
    wordsW: 120,
    firstX: rails,
    lane,
    rope,
    wall: WALL,
    spine,
    card,
    gutter: card + 14,
    gutterW: Math.max(0, lane - card - 18),
    work: card + 14,
    hands,
    width: Math.max(width, rails + lane * count),
  };
}

/** Many narrow ropes side by side, for states that are compared; words only where there is room. */
export function variantLanes(width: number, count: number): Lanes {
  const bare = width < PHONE_MAX;
  const rails = bare ? 64 : 246;
  const many = Math.max(1, count);
  const lane = Math.min(120, Math.max(46, (width - rails) / many));
  const wall = 8;
  const rope = Math.min(56, lane - wall - 22);
  return {
    ...lanesOf(width, 4),
    phone: bare,
    firstX: rails,
    lane,
    rope,
    wall,
    spine: wall + 4,
    card: wall + 4 + rope + 4,
    gutter: wall + 4,
    gutterW: 0,
    work: wall + 4,
    hands: null,
    width: Math.max(width, rails + lane * many),
  };
}

function phoneLanes(width: number, count: number): Lanes {
  const rails = 64;
  const lane = (width - rails) / count;
  const wall = lane >= 70 ? 10 : 7;
  const rope = Math.max(20, Math.min(44, lane - wall - 18));
  return {
    phone: true,
    clockX: 0,
    lightX: 58,
    groundX: 0,
    groundW: 0,
    wordsX: 4,
    wordsW: 52,
    firstX: rails,
    lane,
    rope,
    wall,
    spine: wall + 2,
    card: wall + 2 + rope + 3,
    gutter: wall + 4,
    gutterW: 0,
    work: wall + 4,
    hands: null,
    width,
  };
}

/** Left edge of the strip that opens in a lane's gutter; it may reach over the board's right side. */
export function stripLeft(lanes: Lanes, place: number): number {
  const wanted = lanes.firstX + place * lanes.lane + lanes.gutter - 8;
  return Math.min(wanted, Math.max(lanes.firstX, lanes.width + SIDE_PX - STRIP_PX));
}
