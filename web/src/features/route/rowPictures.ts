import type { Item, ItemTold, Rehearsal, RouteTold } from "../../domain/types";
import { PX_PER_MIN } from "../../scale/elastic";

export type Light = Rehearsal["light"][number]["kind"];

export interface RowPicture {
  told: ItemTold | null;
  /** Light as shares of the row's length in time. */
  light: readonly { from: number; to: number; kind: Light }[];
  /** Height of the row in px: true to time, or not. */
  height: number;
  stretched: boolean;
}

export interface Scales {
  /** Metres above the sea, a little wider than the trip's ground; null when none is known. */
  ground: readonly [number, number] | null;
  /** Degrees, with the doubt at both ends. */
  warm: readonly [number, number];
  mostAir: number;
  mostSun: number;
}

const HEIGHT = { least: 46, mostStop: 120 };
const LEAST_GROUND_M = 100;
const LEAST_WARM_K = 8;
const LEAST_AIR_MPS = 5;
const LEAST_SUN = 400;

/** One scale for all rows, so that the picture is one. */
export function scalesOf(items: readonly Item[], told: RouteTold | null): Scales {
  const heights = told?.items.flatMap((one) => one.height_m) ?? [];
  const temps = items.flatMap((one) => [
    Math.min(one.temp_start_c, one.temp_end_c) - one.temp_doubt_k,
    Math.max(one.temp_start_c, one.temp_end_c) + one.temp_doubt_k,
  ]);
  return {
    ground: heights.length === 0 ? null : widened(heights, LEAST_GROUND_M),
    warm: widened(temps, LEAST_WARM_K),
    mostAir: Math.max(
      LEAST_AIR_MPS,
      ...items.map((one) => (one.kind === "leg" ? one.air_mps + one.air_doubt_mps : 0)),
    ),
    mostSun: Math.max(LEAST_SUN, ...(told?.items.flatMap((one) => one.kit_w_m2) ?? [])),
  };
}

function widened(values: readonly number[], least: number): readonly [number, number] {
  const low = values.reduce((a, b) => Math.min(a, b), Infinity);
  const high = values.reduce((a, b) => Math.max(a, b), -Infinity);
  const more = Math.max(0, least - (high - low)) / 2;
  return [low - more, high + more];
}

/** What each row draws: its light, its columns, and how tall it is. Legs share one scale of time. */
export function rowPictures(
  items: readonly Item[],
  told: RouteTold | null,
  light: Rehearsal["light"],
): RowPicture[] {
  return items.map((item) => {
    const mine = told?.items.find((one) => one.item === item.id) ?? null;
    const seconds = mine === null ? item.duration_s : (mine.end_ms - mine.start_ms) / 1000;
    const exact = (seconds / 60) * PX_PER_MIN;
    const most = item.kind === "stop" ? HEIGHT.mostStop : Infinity;
    const height = Math.min(most, Math.max(HEIGHT.least, exact));
    return {
      told: mine,
      light: mine === null ? [] : lightOf(mine, light),
      height,
      stretched: Math.abs(height - exact) > 0.5,
    };
  });
}

function lightOf(told: ItemTold, light: Rehearsal["light"]): RowPicture["light"] {
  const length = Math.max(1, told.end_ms - told.start_ms);
  return light
    .filter((one) => one.end_ms > told.start_ms && one.start_ms < told.end_ms)
    .map((one) => ({
      from: Math.max(0, (one.start_ms - told.start_ms) / length),
      to: Math.min(1, (one.end_ms - told.start_ms) / length),
      kind: one.kind,
    }));
}

export interface StripLanes {
  width: number;
  clock: readonly [number, number];
  ground: readonly [number, number];
  warm: readonly [number, number];
  air: readonly [number, number];
  sun: readonly [number, number];
}

const WIDE = { clock: 58, ground: 340, warm: 92, air: 52, sun: 66, gap: 12 };
const NARROW = { clock: 46, ground: 66, warm: 34, air: 0, sun: 20, gap: 5 };
const PHONE_PX = 640;

/** Where each lane of the strip lies, in px from its left; a phone has no lane for airflow. */
export function stripLanes(pageWidth: number): StripLanes {
  const { clock, ground, warm, air, sun, gap } = pageWidth < PHONE_PX ? NARROW : WIDE;
  const scaled = pageWidth < PHONE_PX ? ground : Math.min(ground, Math.max(150, pageWidth - 760));
  let x = clock;
  const lane = (width: number): readonly [number, number] => {
    const from = x;
    x += width + (width > 0 ? gap : 0);
    return [from, from + width];
  };
  const lanes = { ground: lane(scaled), warm: lane(warm), air: lane(air), sun: lane(sun) };
  return { width: x, clock: [0, clock], ...lanes };
}
