import { withoutNamed } from "./refers";
import type {
  Assignment,
  Camera,
  CameraPlan,
  Copy,
  Importance,
  Item,
  Kit,
  Plan,
  Trip,
} from "./types";

export interface TripAndPlan {
  trip: Trip;
  plan: Plan;
}

export function assignmentAt(plan: Plan, camera: string, item: string): Assignment | undefined {
  return plan.assignments.find((one) => one.camera === camera && one.item === item);
}

/** What a camera would be asked when it is first put on a leg: as on its last leg, else its first mode. */
export function freshAssignment(plan: Plan, camera: Camera, item: string): Assignment {
  const last = plan.assignments.findLast((one) => one.camera === camera.id);
  const mode = camera.modes.find((one) => one.id === last?.mode) ?? camera.modes[0];
  const setUp = camera.set_ups.find((one) => one.id === last?.set_up) ?? camera.set_ups[0];
  return {
    camera: camera.id,
    item,
    mode: mode?.id ?? "",
    set_up: setUp?.id ?? "",
    features: [],
    pattern: { kind: "roll" },
    importance: "want" satisfies Importance,
    angle: null,
    mount: null,
    preset: null,
    reason: "",
  };
}

/** The plan with an assignment put in place of the one on the same camera and leg. */
export function withAssignment(plan: Plan, next: Assignment): Plan {
  const same = (one: Assignment) => one.camera === next.camera && one.item === next.item;
  const known = plan.assignments.some(same);
  const assignments = known
    ? plan.assignments.map((one) => (same(one) ? next : one))
    : [...plan.assignments, next];
  return { ...plan, assignments };
}

/** Every camera rolls on every leg, as a must: something to take away from. */
export function rolledEverywhere(kit: Kit, trip: Trip, plan: Plan): Plan {
  const legs = trip.items.filter((one) => one.kind === "leg");
  const assignments = legs.flatMap((leg) =>
    kit.cameras
      .filter((camera) => camera.modes.length > 0 && camera.set_ups.length > 0)
      .map((camera) => ({ ...freshAssignment(plan, camera, leg.id), importance: "must" as const })),
  );
  return { ...plan, assignments };
}

export function withoutAssignment(plan: Plan, camera: string, item: string): Plan {
  return {
    ...plan,
    assignments: plan.assignments.filter((one) => one.camera !== camera || one.item !== item),
  };
}

/** The plan with what a camera copies at a stop; null: nothing. */
export function withCopy(plan: Plan, camera: string, item: string, next: Copy | null): Plan {
  const others = plan.copies.filter((one) => one.camera !== camera || one.item !== item);
  return { ...plan, copies: next ? [...others, next] : others };
}

export function cameraPlan(plan: Plan, camera: string): CameraPlan {
  return (
    plan.cameras.find((one) => one.camera === camera) ?? {
      camera,
      battery: null,
      card: null,
      angle: "sight",
      mount: "other",
      source: null,
      between: "off",
      radio_left_on: false,
      tethered: false,
    }
  );
}

export function withCameraPlan(plan: Plan, next: CameraPlan): Plan {
  const known = plan.cameras.some((one) => one.camera === next.camera);
  const cameras = known
    ? plan.cameras.map((one) => (one.camera === next.camera ? next : one))
    : [...plan.cameras, next];
  return { ...plan, cameras };
}

/** The plan with a battery in a camera at the start, and in no other. */
export function withFitted(plan: Plan, camera: string, battery: string): Plan {
  const freed = plan.cameras.map((one) =>
    one.battery === battery ? { ...one, battery: null } : one,
  );
  const clear = { ...plan, cameras: freed };
  return withCameraPlan(clear, { ...cameraPlan(clear, camera), battery });
}

export type SwapWhen = Plan["swaps"][number]["when"];

interface WordAt {
  camera: string;
  item: string;
  when: SwapWhen;
}

/** What is said of cameras at stops, with one camera's word there another one, or none at all. */
function withWord<Word extends WordAt>(
  words: readonly Word[],
  camera: string,
  item: string,
  next: ((when: SwapWhen) => Word) | null,
  when?: SwapWhen,
): Word[] {
  const mine = words.find((one) => one.camera === camera && one.item === item);
  const others = words.filter((one) => one !== mine);
  return next === null ? others : [...others, next(when ?? mine?.when ?? "arrival")];
}

/**
 * A manual swap: a battery's id, null to leave the one in, undefined to let the policy decide.
 * On arrival or just before leaving; as it was, where that is not said.
 */
export function withSwap(
  plan: Plan,
  camera: string,
  item: string,
  battery: string | null | undefined,
  when?: SwapWhen,
): Plan {
  const said =
    battery === undefined ? null : (at: SwapWhen) => ({ camera, item, battery, when: at });
  return { ...plan, swaps: withWord(plan.swaps, camera, item, said, when) };
}

/** The same of a card. */
export function withCardSwap(
  plan: Plan,
  camera: string,
  item: string,
  card: string | null | undefined,
  when?: SwapWhen,
): Plan {
  const said = card === undefined ? null : (at: SwapWhen) => ({ camera, item, card, when: at });
  return { ...plan, card_swaps: withWord(plan.card_swaps, camera, item, said, when) };
}

export function withItem(trip: Trip, next: Item): Trip {
  return { ...trip, items: trip.items.map((one) => (one.id === next.id ? next : one)) };
}

export function withInserted(trip: Trip, place: number, items: readonly Item[]): Trip {
  return { ...trip, items: [...trip.items.slice(0, place), ...items, ...trip.items.slice(place)] };
}

/** Trip and plan without a leg or stop; what was asked on it goes with it. */
export function withoutItem(doc: TripAndPlan, id: string): TripAndPlan {
  return {
    trip: { ...doc.trip, items: doc.trip.items.filter((one) => one.id !== id) },
    plan: withoutNamed(doc.plan, "item", (named) => named === id),
  };
}

export function moved<T>(list: readonly T[], from: number, to: number): T[] {
  const next = [...list];
  const [one] = next.splice(from, 1);
  if (one !== undefined) next.splice(to, 0, one);
  return next;
}

/** A key of its own for a new thing, made from its name. */
export function freshKey(name: string, taken: Iterable<string>): string {
  const known = new Set(taken);
  const base =
    name
      .toLowerCase()
      .replace(/[^a-z0-9]+/g, "-")
      .replace(/^-+|-+$/g, "")
      .slice(0, 30) || "one";
  let key = base;
  for (let number = 2; known.has(key); number += 1) key = `${base}-${String(number)}`;
  return key;
}

/** The keys of everything in a kit: a new thing's key is none of them. */
export function kitKeys(kit: Kit): string[] {
  return everything(kit).flatMap((one) => ("id" in one ? [one.id] : []));
}

/** The names of everything in a kit. */
export function kitNames(kit: Kit): string[] {
  return everything(kit).flatMap((one) => ("name" in one ? [one.name] : []));
}

function everything(kit: Kit) {
  return Object.values(kit)
    .filter((one) => Array.isArray(one))
    .flat();
}
