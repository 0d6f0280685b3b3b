import { withSwap } from "./edits";
import { portWatts } from "./powerEdits";
import type { Item, Kit, Move, Plan, Trip } from "./types";

/** Work of the hands that can be done at another stop. */
export type Movable = "swap" | "plug" | "copy";

export function movable(move: Move): Movable | null {
  if (move.kind === "copy") return "copy";
  if (move.unit === "") return null;
  return move.kind === "swap" || move.kind === "plug" ? move.kind : null;
}

/** Why a kind of work cannot be done on a leg or stop; null where it can. */
export function barredAt(kind: Movable, item: Item, kit: Kit): string | null {
  if (kind === "plug" && kit.sources.length === 0) return "nothing gives power";
  if (item.kind === "leg") {
    if (item.hands !== "free") return "no hand is free";
    return kind === "copy" ? "copying wants a stop" : null;
  }
  if (item.asleep != null && item.asleep.duration_s >= item.duration_s) return "you sleep";
  return null;
}

/** Legs and stops where the work may go, in order of time. */
export function permitted(kind: Movable, trip: Trip, kit: Kit): Item[] {
  return trip.items.filter((item) => barredAt(kind, item, kit) === null);
}

export type Plugged = Plan["plugs"][number];

/** The plan with what is said of where a unit is plugged in at a stop, and from when. */
export function withPlugged(plan: Plan, unit: string, item: string, part: Partial<Plugged>): Plan {
  const mine = plan.plugs.find((one) => one.unit === unit && one.item === item);
  const others = plan.plugs.filter((one) => one !== mine);
  return { ...plan, plugs: [...others, { ...mine, unit, item, plug: true, ...part }] };
}

/** Places that a unit may be plugged into: bays of chargers, ports of sources. */
export function plugPlaces(kit: Kit): { value: string; name: string; to: string; place: number }[] {
  const bays = kit.chargers.flatMap((one) =>
    Array.from({ length: one.bays }, (_, n) => ({ one, n, what: "bay" })),
  );
  const ports = kit.sources
    .filter((one) => one.kind !== "module")
    .flatMap((one) => portWatts(one).map((_, n) => ({ one, n, what: "port" })));
  return [...bays, ...ports].map(({ one, n, what }) => ({
    value: `${one.id}/${String(n + 1)}`,
    name: `${one.name}, ${what} ${String(n + 1)}`,
    to: one.id,
    place: n + 1,
  }));
}

/** Units that may be plugged in by the plan's word. */
export function plugChoices(kit: Kit): { value: string; name: string }[] {
  const stores = kit.sources.filter((one) => one.kind === "bank" || one.kind === "module");
  return [...stores, ...kit.gear, ...kit.batteries].map((one) => ({
    value: one.id,
    name: one.name,
  }));
}

/** Where one of them may go: the best, a source or charger, a module's camera, or nowhere. */
export function plugInto(kit: Kit, unit: string): { value: string; name: string }[] {
  const module = kit.sources.find((one) => one.id === unit && one.kind === "module");
  const fits = module?.kind === "module" ? module.fits : null;
  const camera = kit.cameras.filter((one) => one.id === fits);
  const sources = kit.sources.filter((one) => one.id !== unit && one.kind !== "module");
  const cell = kit.batteries.some((one) => one.id === unit);
  const places = cell ? kit.chargers : [...camera, ...sources];
  return [
    { value: "", name: "the best that is free" },
    { value: "-", name: "nothing, not here" },
    ...places.map((one) => ({ value: one.id, name: one.name })),
  ];
}

/** The plan with a unit plugged in at a stop (true), kept from it (false), or neither (null). */
export function withPlug(plan: Plan, unit: string, item: string, plug: boolean | null): Plan {
  const others = plan.plugs.filter((one) => one.unit !== unit || one.item !== item);
  const bare = { ...plan, plugs: others };
  return plug === null ? bare : withPlugged(bare, unit, item, { plug });
}

/** The plan with a piece of the hands' work done at another leg or stop instead. */
export function withMoved(plan: Plan, move: Move, to: string): Plan {
  if (to === move.item) return plan;
  switch (movable(move)) {
    case "swap":
      return withSwap(withSwap(plan, move.camera, move.item, null), move.camera, to, move.unit);
    case "plug":
      return withPlug(withPlug(plan, move.unit, move.item, false), move.unit, to, true);
    case "copy": {
      const mine = (one: Plan["copies"][number]) =>
        one.camera === move.camera && one.item === move.item;
      const clear = plan.copies.filter((one) => one.camera !== move.camera || one.item !== to);
      return { ...plan, copies: clear.map((one) => (mine(one) ? { ...one, item: to } : one)) };
    }
    case null:
      return plan;
  }
}
