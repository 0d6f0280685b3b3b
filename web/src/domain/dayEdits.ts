import type { DayWindow } from "./clock";
import type { Item, Plan, Rehearsal, Trip } from "./types";

/** Legs and stops of a day: those that begin within it. */
export function itemsOfDay(trip: Trip, rehearsal: Rehearsal, day: DayWindow): Item[] {
  const begins = new Map(rehearsal.items.map((one) => [one.id, one.start_ms]));
  return trip.items.filter((item) => {
    const at = begins.get(item.id);
    return at !== undefined && at >= day.startMs && at < day.endMs;
  });
}

export interface DayCopied {
  plan: Plan;
  /** Stretches asked on the other day. */
  copied: number;
  /** Legs and stops whose like the other day has not. */
  left: string[];
}

/**
 * What is asked on one day asked on another: climb for climb, flight for flight, stop for stop, in
 * their order; a leg without its like takes the place of a leg that is left. What was asked on the
 * other day goes.
 */
export function withDayCopied(plan: Plan, from: readonly Item[], to: readonly Item[]): DayCopied {
  const asked = new Set(plan.assignments.map((one) => one.item));
  const wanted = from.filter((item) => asked.has(item.id));
  const free = new Set(to);
  const pairs = new Map<string, string>();
  const take = (item: Item, fits: (other: Item) => boolean) => {
    const found = [...free].find(fits);
    if (found === undefined) return;
    free.delete(found);
    pairs.set(item.id, found.id);
  };
  for (const item of wanted) take(item, (other) => kindOf(other) === kindOf(item));
  for (const item of wanted)
    if (item.kind === "leg" && !pairs.has(item.id)) take(item, (other) => other.kind === "leg");
  const gone = new Set(to.map((item) => item.id));
  const copies = plan.assignments.flatMap((one) => {
    const item = pairs.get(one.item);
    return item === undefined ? [] : [{ ...one, item }];
  });
  return {
    plan: {
      ...plan,
      assignments: [...plan.assignments.filter((one) => !gone.has(one.item)), ...copies],
    },
    copied: copies.length,
    left: wanted.filter((item) => !pairs.has(item.id)).map((item) => item.name),
  };
}

function kindOf(item: Item): string {
  return item.kind === "leg" ? item.activity : "stop";
}
