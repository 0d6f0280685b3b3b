import { firstAfter, momentOf } from "../domain/moment";
import type { Course } from "../domain/types";

export interface Point {
  x: number;
  y: number;
}

/** What a rope may show of a row. */
export interface Shown {
  charge: number;
  bodyC: number;
  usedBytes: number;
  held: number;
}

export type ColumnOf = (course: Course, index: number) => number;

/** Points of a column over a time window, its edges included, thinned to one a pixel. */
export function columnPoints(
  course: Course,
  startMs: number,
  endMs: number,
  y: (ms: number) => number,
  value: (moment: Shown) => number,
): Point[] {
  const points: Point[] = [];
  const add = (ms: number, moment: Shown) => points.push({ x: value(moment), y: y(ms) });
  const first = momentOf(course, startMs);
  if (first === null) return [];
  add(startMs, first);
  for (let i = firstAfter(course.t_ms, startMs); i < course.t_ms.length; i += 1) {
    const ms = course.t_ms[i] ?? 0;
    if (ms >= endMs) break;
    add(ms, {
      charge: course.charge[i] ?? 0,
      bodyC: course.body_c[i] ?? 0,
      usedBytes: course.used_bytes[i] ?? 0,
      held: course.held[i] ?? 0,
    });
  }
  const last = momentOf(course, endMs - 1);
  if (last !== null) add(endMs, last);
  return thin(points);
}

/** Drop points that stand within half a pixel of both neighbours' line. */
export function thin(points: readonly Point[]): Point[] {
  const kept: Point[] = [];
  for (const [place, point] of points.entries()) {
    const before = kept.at(-1);
    const after = points[place + 1];
    if (before && after && after.y > before.y) {
      const way = (point.y - before.y) / (after.y - before.y);
      const straight = before.x + (after.x - before.x) * way;
      if (Math.abs(straight - point.x) < 0.35 && after.y - before.y < 40) continue;
    }
    kept.push(point);
  }
  return kept;
}

/** Unbroken rows of points that are shown, each with the point before and after it. */
export function runsOf(points: readonly Point[], isShown: (point: Point) => boolean): Point[][] {
  const runs: Point[][] = [];
  let run: Point[] = [];
  for (const [place, point] of points.entries()) {
    const before = points[place - 1];
    if (isShown(point)) {
      if (run.length === 0 && before !== undefined) run.push(before);
      run.push(point);
    } else if (run.length > 0) {
      runs.push([...run, point]);
      run = [];
    }
  }
  return run.length > 0 ? [...runs, run] : runs;
}

/** A closed shape between a straight line at `fromX` and the points. */
export function areaPath(points: readonly Point[], fromX: number): string {
  const first = points[0];
  const last = points.at(-1);
  if (first === undefined || last === undefined) return "";
  const edge = points.map((p) => `L${p.x.toFixed(1)} ${p.y.toFixed(1)}`).join("");
  return `M${String(fromX)} ${first.y.toFixed(1)}${edge}L${String(fromX)} ${last.y.toFixed(1)}Z`;
}

export function linePath(points: readonly Point[]): string {
  return points
    .map((p, place) => `${place === 0 ? "M" : "L"}${p.x.toFixed(1)} ${p.y.toFixed(1)}`)
    .join("");
}

/** From when on two courses differ [ms]; null when they never do. */
export function firstApart(one: Course, other: Course): number | null {
  const most = Math.max(one.t_ms.length, other.t_ms.length);
  for (let place = 0; place < most; place += 1)
    if (one.t_ms[place] !== other.t_ms[place] || one.charge[place] !== other.charge[place])
      return one.t_ms[place - 1] ?? 0;
  return null;
}
