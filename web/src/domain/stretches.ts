import { assignmentAt } from "./edits";
import type { Assignment, Plan, Trip } from "./types";

/** Legs and stops that follow each other and are recorded by one camera in one way. */
export interface Stretch {
  camera: string;
  /** Places of its first and last leg or stop in the trip. */
  first: number;
  last: number;
  /** How far it may be pulled out: up to what else the camera is asked. */
  earliest: number;
  latest: number;
}

/** The stretches of a camera, in order of time. */
export function stretchesOf(trip: Trip, plan: Plan, camera: string): Stretch[] {
  const asked = trip.items.map((item) => assignmentAt(plan, camera, item.id));
  const found: { first: number; last: number }[] = [];
  for (const [place, one] of asked.entries()) {
    if (one === undefined) continue;
    const before = found.at(-1);
    const earlier = place > 0 ? asked[place - 1] : undefined;
    if (before?.last === place - 1 && earlier !== undefined && sameWay(earlier, one))
      before.last = place;
    else found.push({ first: place, last: place });
  }
  return found.map(({ first, last }, number) => ({
    camera,
    first,
    last,
    earliest: (found[number - 1]?.last ?? -1) + 1,
    latest: (found[number + 1]?.first ?? trip.items.length) - 1,
  }));
}

function sameWay(one: Assignment, other: Assignment): boolean {
  const way = ({ mode, set_up, features, pattern, importance, angle, mount, preset }: Assignment) =>
    JSON.stringify([mode, set_up, features, pattern, importance, angle, mount, preset]);
  return way(one) === way(other);
}

/** The plan with a stretch reaching from one leg or stop to another; its ends give the pattern. */
export function withStretch(
  trip: Trip,
  plan: Plan,
  stretch: Stretch,
  first: number,
  last: number,
): Plan {
  const idAt = (place: number) => trip.items[place]?.id ?? "";
  const mine = new Map(
    plan.assignments
      .filter((one) => one.camera === stretch.camera)
      .map((one) => [one.item, one] as const),
  );
  const gone = new Set<string>();
  for (let place = stretch.first; place <= stretch.last; place += 1)
    if (place < first || place > last) gone.add(idAt(place));
  const more: Assignment[] = [];
  for (let place = first; place <= last; place += 1) {
    const like = mine.get(idAt(place < stretch.first ? stretch.first : stretch.last));
    if (!mine.has(idAt(place)) && like !== undefined) more.push({ ...like, item: idAt(place) });
  }
  const kept = plan.assignments.filter(
    (one) => one.camera !== stretch.camera || !gone.has(one.item),
  );
  return { ...plan, assignments: [...kept, ...more] };
}
