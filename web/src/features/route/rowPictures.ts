import type { Item, Rehearsal } from "../../domain/types";

export interface RowPicture {
  /** Ground at the start and end of the row, 0 (low) to 1 (high); null when unknown. */
  ground: readonly [number, number] | null;
  /** Temperature at start and end, 0 (coldest of the trip) to 1 (warmest). */
  warmth: readonly [number, number];
  /** Light as shares of the row's height. */
  light: readonly { from: number; to: number; kind: Rehearsal["light"][number]["kind"] }[];
  /** Least height of the row in px: elastic time. */
  height: number;
}

const PX_PER_MIN = 0.34;
const HEIGHT = { least: 44, most: 96 };

/** What each row's strip draws, on scales shared by the whole trip. */
export function rowPictures(items: readonly Item[], rehearsal: Rehearsal | null): RowPicture[] {
  const heights = items.flatMap((item) => groundOf(item) ?? []);
  const temps = items.flatMap((item) => [item.temp_start_c, item.temp_end_c]);
  const ground = scaleOf(heights);
  const warmth = scaleOf(temps);
  return items.map((item) => {
    const own = groundOf(item);
    return {
      ground: own === null ? null : [ground(own[0]), ground(own[1])],
      warmth: [warmth(item.temp_start_c), warmth(item.temp_end_c)],
      light: lightOf(item, rehearsal),
      height: Math.min(HEIGHT.most, Math.max(HEIGHT.least, (item.duration_s / 60) * PX_PER_MIN)),
    };
  });
}

function groundOf(item: Item): [number, number] | null {
  if (item.kind === "stop") return item.height_m == null ? null : [item.height_m, item.height_m];
  if (item.height_start_m == null || item.height_end_m == null) return null;
  return [item.height_start_m, item.height_end_m];
}

function scaleOf(values: readonly number[]): (value: number) => number {
  const low = Math.min(...values);
  const span = Math.max(...values) - low;
  return (value) => (span > 0 ? (value - low) / span : 0.5);
}

function lightOf(item: Item, rehearsal: Rehearsal | null): RowPicture["light"] {
  const laid = rehearsal?.items.find((one) => one.id === item.id);
  if (laid === undefined || rehearsal === null) return [];
  const length = laid.end_ms - laid.start_ms;
  return rehearsal.light
    .filter((one) => one.end_ms > laid.start_ms && one.start_ms < laid.end_ms)
    .map((one) => ({
      from: Math.max(0, (one.start_ms - laid.start_ms) / length),
      to: Math.min(1, (one.end_ms - laid.start_ms) / length),
      kind: one.kind,
    }));
}
