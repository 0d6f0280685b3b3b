import { beginsIn } from "./moment";
import type { GearGap, GearTold, Loss, Rehearsal } from "./types";
import { minutesText } from "./units";

const MINUTE_MS = 60_000;

/** A thing with a battery that is dead while it is wanted: a gap of its own kind beside the film's. */
export interface Dead {
  gear: GearTold;
  gap: GearGap;
}

/** What goes wrong on a leg or stop: something is not filmed, or something is dead. */
export type Gap = { startMs: number; item: string; camera: string | null } & (
  { kind: "film"; loss: Loss } | { kind: "gear"; dead: Dead }
);

function filmGap(loss: Loss): Gap {
  return { kind: "film", startMs: loss.start_ms, item: loss.item, camera: loss.camera, loss };
}

function gearGaps(gear: GearTold): Gap[] {
  return gear.gaps.map((gap) => ({
    kind: "gear",
    startMs: gap.start_ms,
    item: gap.item,
    camera: gear.serves,
    dead: { gear, gap },
  }));
}

/** A name that one gap has and no other. */
export function gapName(one: Gap): string {
  return one.kind === "film"
    ? `${one.loss.camera}-${one.item}-${one.loss.cause}`
    : `${one.dead.gear.id}-${String(one.startMs)}`;
}

/** What goes wrong by the leg or stop in which it begins, in order of time. */
export function gapsByItem(rehearsal: Rehearsal): Map<string, Gap[]> {
  const all = [
    ...rehearsal.cameras.flatMap((one) => one.losses.map(filmGap)),
    ...rehearsal.gear.flatMap(gearGaps),
  ];
  const found = new Map<string, Gap[]>();
  for (const one of all) found.set(one.item, [...(found.get(one.item) ?? []), one]);
  for (const list of found.values()) list.sort((a, b) => a.startMs - b.startMs);
  return found;
}

/** Those of one leg or stop that begin in a part of it. */
export function gapsIn(
  gaps: ReadonlyMap<string, readonly Gap[]>,
  part: { id: string; startMs: number; endMs: number },
): Gap[] {
  return (gaps.get(part.id) ?? []).filter((one) => beginsIn(one.startMs, part));
}

/** Things with a battery that serve a camera and are dead while they are wanted. */
export function dyingWith(rehearsal: Rehearsal, camera: string): GearTold[] {
  return rehearsal.gear.filter((one) => one.serves === camera && one.gaps.length > 0);
}

/** "1 h 15 without sound" */
export function withoutText({ gear, gap }: Dead): string {
  return `${minutesText((gap.end_ms - gap.start_ms) / MINUTE_MS)} without ${gear.loses}`;
}
