import type { Course, Loss, PlanDocument, Pooled, Rehearsal } from "./types";

export interface Moment {
  charge: number;
  bodyC: number;
  usedBytes: number;
  held: number;
  cellC: number;
  state: number;
}

/** A camera at a time, between the rows of its course. */
export function momentOf(course: Course, atMs: number): Moment | null {
  const times = course.t_ms;
  if (times.length === 0) return null;
  const after = firstAfter(times, atMs);
  const b = Math.min(after, times.length - 1);
  const a = Math.max(0, after - 1);
  const span = (times[b] ?? 0) - (times[a] ?? 0);
  const way = span > 0 ? Math.min(1, Math.max(0, (atMs - (times[a] ?? 0)) / span)) : 1;
  const between = (column: readonly number[]) => {
    const from = column[a] ?? 0;
    return from + ((column[b] ?? from) - from) * way;
  };
  return {
    charge: between(course.charge),
    bodyC: between(course.body_c),
    usedBytes: between(course.used_bytes),
    held: between(course.held),
    cellC: between(course.cell_c),
    state: course.state[b] ?? 0,
  };
}

/** Index of the first time after a moment (binary search). */
export function firstAfter(times: readonly number[], atMs: number): number {
  let low = 0;
  let high = times.length;
  while (low < high) {
    const middle = (low + high) >> 1;
    if ((times[middle] ?? 0) <= atMs) low = middle + 1;
    else high = middle;
  }
  return low;
}

/** All losses in the order of time, as stations for the next-gap key. */
export function lossesInOrder(rehearsal: Rehearsal): Loss[] {
  return rehearsal.cameras
    .flatMap((camera) => camera.losses)
    .sort((a, b) => a.start_ms - b.start_ms);
}

/** Whether what begins at a time begins in a part of the trip: so that each is told once. */
export function beginsIn(ms: number, part: { startMs: number; endMs: number }): boolean {
  return part.startMs <= ms && ms < part.endMs;
}

/** The battery that is in a camera at a time. */
export function batteryIn(rehearsal: Rehearsal, camera: string, atMs: number): Pooled | undefined {
  return rehearsal.batteries.find((one) =>
    one.stays.some(
      (s) => s.place === camera && s.start_ms <= atMs && atMs < Math.max(s.end_ms, s.start_ms + 1),
    ),
  );
}

const GIVES_OUT: ReadonlySet<Loss["cause"]> = new Set(["empty", "cold", "no_power"]);

/** When the battery that is in gives out, where it does so before it is taken out; else null. */
export function givesOutMs(rehearsal: Rehearsal, camera: string, atMs: number): number | null {
  const stay = batteryIn(rehearsal, camera, atMs)?.stays.find(
    (one) => one.place === camera && one.start_ms <= atMs && atMs < one.end_ms,
  );
  const result = rehearsal.cameras.find((one) => one.camera === camera);
  const gap = result?.gaps.find(
    (one) => GIVES_OUT.has(one.cause) && one.start_ms > atMs && one.start_ms <= (stay?.end_ms ?? 0),
  );
  return gap?.start_ms ?? null;
}

/** The place of a finding: a cell of the board, or another place that edits its field. */
export function findingPlace(path: string): "kit" | "route" | "board" {
  if (path.startsWith("kit.")) return "kit";
  return path.startsWith("trip.") ? "route" : "board";
}

export function nameOfCamera(document: PlanDocument, id: string): string {
  return document.kit.cameras.find((one) => one.id === id)?.name ?? id;
}
