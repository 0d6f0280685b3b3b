import { localField } from "./routeEdits";
import type { Kit, Plan, Trip } from "./types";

export type FullBy = Plan["full_by"][number];

/** The cameras that one action starts together with a camera. */
export function linkedWith(plan: Plan, camera: string): string[] {
  const link = plan.links.find((one) => one.cameras.includes(camera));
  return link ? link.cameras.filter((one) => one !== camera) : [];
}

/** Two cameras linked, with all that either was linked to; or the other one taken out. */
export function withLinked(plan: Plan, camera: string, other: string, on: boolean): Plan {
  const touches = (one: Plan["links"][number]) =>
    one.cameras.includes(camera) || (on && one.cameras.includes(other));
  const mine = new Set([camera, other, ...plan.links.filter(touches).flatMap((l) => l.cameras)]);
  if (!on) mine.delete(other);
  const links = plan.links.filter((one) => !touches(one));
  return { ...plan, links: mine.size < 2 ? links : [...links, { cameras: [...mine] }] };
}

/** What can be asked to be full at a time: batteries and banks. */
export function fillable(kit: Kit): { id: string; name: string }[] {
  return [...kit.batteries, ...kit.sources.filter((one) => one.kind === "bank")];
}

/** A wish for something that has none yet: full at six on the morning after the start. */
export function freshFullBy(kit: Kit, plan: Plan, trip: Trip): FullBy | null {
  const taken = new Set(plan.full_by.map((one) => one.unit));
  const unit = fillable(kit).find((one) => !taken.has(one.id));
  if (unit === undefined) return null;
  const morning = new Date(`${localField(trip.start).slice(0, 10)}T06:00:00Z`);
  morning.setUTCDate(morning.getUTCDate() + 1);
  return { unit: unit.id, at: morning.toISOString().slice(0, 19) };
}
