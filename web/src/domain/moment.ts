import type { CameraResult, Course, Loss, PlanDocument, Pooled, Rehearsal } from "./types";

export interface Moment {
  charge: number;
  bodyC: number;
  usedBytes: number;
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

export interface Carried {
  id: string;
  name: string;
  /** Camera id, or "bag". */
  place: string;
  level: number;
  size: number;
}

/** Where each battery (level: charge) or card (level: bytes used) is at a time. */
export function carriedAt(
  pool: readonly Pooled[],
  cameras: readonly CameraResult[],
  atMs: number,
  cards: boolean,
): Carried[] {
  return pool.map((one) => {
    const stay = one.stays.findLast((s) => s.start_ms <= atMs) ?? one.stays[0];
    const place = stay?.place ?? "bag";
    const result = cameras.find((camera) => camera.camera === place);
    const moment = result ? momentOf(result.course, atMs) : null;
    let level = stay?.level_start ?? 0;
    if (moment !== null) level = cards ? moment.usedBytes : moment.charge;
    else if (stay !== undefined && stay.end_ms > stay.start_ms) {
      const way = Math.min(1, (atMs - stay.start_ms) / (stay.end_ms - stay.start_ms));
      level = stay.level_start + (stay.level_end - stay.level_start) * way;
    }
    return { id: one.id, name: one.name, place, level, size: one.size };
  });
}

/** Filmed ms that stand on one card at a time. */
export function filmedOnStore(rehearsal: Rehearsal, store: string, atMs: number): number {
  let total = 0;
  for (const camera of rehearsal.cameras)
    for (const span of camera.filmed)
      if (span.card === store) total += Math.max(0, Math.min(span.end_ms, atMs) - span.start_ms);
  return total;
}

/** All losses in the order of time, as stations for the next-gap key. */
export function lossesInOrder(rehearsal: Rehearsal): Loss[] {
  return rehearsal.cameras
    .flatMap((camera) => camera.losses)
    .sort((a, b) => a.start_ms - b.start_ms);
}

/** The battery that is in a camera at a time. */
export function batteryIn(rehearsal: Rehearsal, camera: string, atMs: number): Pooled | undefined {
  return rehearsal.batteries.find((one) =>
    one.stays.some(
      (s) => s.place === camera && s.start_ms <= atMs && atMs < Math.max(s.end_ms, s.start_ms + 1),
    ),
  );
}

/** The place of a finding: a cell of the board, or another place that edits its field. */
export function findingPlace(path: string): "kit" | "route" | "board" {
  if (path.startsWith("kit.")) return "kit";
  return path.startsWith("trip.") ? "route" : "board";
}

export function nameOfCamera(document: PlanDocument, id: string): string {
  return document.kit.cameras.find((one) => one.id === id)?.name ?? id;
}
