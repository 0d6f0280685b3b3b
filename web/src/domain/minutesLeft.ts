import type { Camera, PlanDocument, Rehearsal } from "./types";

type RunRate = Rehearsal["rates"][number];
const MINUTES_AN_HOUR = 60;

interface RateTo {
  endMs: number;
  rate: RunRate;
}

const known = new WeakMap<Rehearsal, ReadonlyMap<string, readonly RateTo[]>>();

/** What each camera draws and writes, stretch by stretch in order of time; once a rehearsal. */
function ratesOf(document: PlanDocument, rehearsal: Rehearsal) {
  const found = known.get(rehearsal);
  if (found !== undefined) return found;
  const ends = new Map(rehearsal.items.map((one) => [one.id, one.end_ms]));
  const byCamera = new Map<string, RateTo[]>();
  for (const rate of rehearsal.rates) {
    const asked = document.plan.assignments[rate.assignment];
    if (asked === undefined) continue;
    const mine = byCamera.get(asked.camera) ?? [];
    byCamera.set(asked.camera, [...mine, { endMs: ends.get(asked.item) ?? 0, rate }]);
  }
  for (const mine of byCamera.values()) mine.sort((a, b) => a.endMs - b.endMs);
  known.set(rehearsal, byCamera);
  return byCamera;
}

/** What cameras draw and write at a time, else in the stretch that is asked of them next. */
export function rateAt(
  document: PlanDocument,
  rehearsal: Rehearsal,
  cameras: readonly string[],
  atMs: number,
): RunRate | null {
  const rates = ratesOf(document, rehearsal);
  const next = cameras.flatMap((one) => rates.get(one)?.find(({ endMs }) => endMs > atMs) ?? []);
  return next.sort((a, b) => a.endMs - b.endMs)[0]?.rate ?? null;
}

/** Minutes that a charge [0..1] of so many watt-hours lasts in the warm; null where none is asked. */
export function batteryMinutes(rate: RunRate | null, charge: number, wh: number): number | null {
  if (rate === null || rate.watts <= 0) return null;
  return Math.floor((charge * wh * MINUTES_AN_HOUR) / rate.watts);
}

/** Minutes that some bytes of room last; null where nothing is written. */
export function roomMinutes(rate: RunRate | null, bytes: number): number | null {
  if (rate === null || rate.bytes_s <= 0) return null;
  return Math.floor(Math.max(0, bytes) / rate.bytes_s / MINUTES_AN_HOUR);
}

/** The cameras that take a battery's family, or a card of a size. */
export function takers(cameras: readonly Camera[], fits: (one: Camera) => boolean): string[] {
  return cameras.filter(fits).map((one) => one.id);
}
