import type { Camera, PlanDocument, Rehearsal } from "./types";

type RunRate = Rehearsal["rates"][number];
const MINUTES_AN_HOUR = 60;

/** What a camera draws and writes at a time, else in the stretch that is asked of it next. */
export function rateAt(
  document: PlanDocument,
  rehearsal: Rehearsal,
  cameras: readonly string[],
  atMs: number,
): RunRate | null {
  const ends = new Map(rehearsal.items.map((one) => [one.id, one.end_ms]));
  let found: RunRate | null = null;
  let soonest = Infinity;
  for (const rate of rehearsal.rates) {
    const asked = document.plan.assignments[rate.assignment];
    const end = asked && cameras.includes(asked.camera) ? (ends.get(asked.item) ?? 0) : 0;
    if (end > atMs && end < soonest) {
      soonest = end;
      found = rate;
    }
  }
  return found;
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
