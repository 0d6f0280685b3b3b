import { freshKey } from "./edits";
import type { Item, Leg, Stop, Trip } from "./types";

export const ACTIVITIES: Record<Leg["activity"], string> = {
  climb: "climb",
  walk: "walk",
  descent: "descent",
  flight: "flight",
  sled: "sled",
  sail: "sail",
  ride: "ride",
  paddle: "paddle",
  drive: "drive",
  other: "other",
};

export const HANDS: Record<Leg["hands"], string> = {
  free: "free",
  stops: "free at stops only",
  never: "never free",
};

export function itemKeys(trip: Trip): string[] {
  return trip.items.map((one) => one.id);
}

/** A stop to put after a leg, or a leg to put after a stop, in the air of the one before. */
export function freshItem(trip: Trip, kind: Item["kind"], before: Item | undefined): Item {
  const temp = before?.temp_end_c ?? 15;
  const name = kind === "leg" ? "leg" : "stop";
  const shared = {
    id: freshKey(name, itemKeys(trip)),
    name,
    not_before: null,
    temp_start_c: temp,
    temp_end_c: temp,
    sun_share: before?.sun_share ?? 0,
    gloves: before?.gloves ?? false,
    sky: before?.sky ?? 1,
    moments: [],
  };
  const height = heightAtEnd(before);
  if (kind === "stop")
    return { ...shared, kind, duration_s: 1800, asleep: null, height_m: height } satisfies Stop;
  return {
    ...shared,
    kind,
    duration_s: 3600,
    activity: "other",
    hands: "stops",
    air_mps: 0,
    ...DRY_AND_SLOW,
    height_start_m: height,
    height_end_m: height,
  } satisfies Leg;
}

/** What a leg has that a stop has not, when it is new. */
const DRY_AND_SLOW = {
  speed_mps: 0,
  vehicle_runs: false,
  wet: "dry",
  one_angle_always: false,
} as const;

export function heightAtEnd(item: Item | undefined): number | null {
  if (item === undefined) return null;
  return (item.kind === "stop" ? item.height_m : item.height_end_m) ?? null;
}

/** The same stretch as a leg or as a stop. */
export function asKind(item: Item, kind: Item["kind"]): Item {
  if (item.kind === kind) return item;
  const { id, name, duration_s, not_before, temp_start_c, temp_end_c } = item;
  const { sun_share, gloves, sky, moments } = item;
  const air = { temp_start_c, temp_end_c, sun_share, gloves, sky, moments };
  const shared = { id, name, duration_s, not_before, ...air };
  if (item.kind === "leg")
    return { ...shared, kind: "stop", asleep: null, height_m: item.height_end_m };
  return {
    ...shared,
    kind: "leg",
    activity: "other",
    hands: "stops",
    air_mps: 0,
    ...DRY_AND_SLOW,
    height_start_m: item.height_m,
    height_end_m: item.height_m,
  };
}

/** "2027-06-12T06:00" of a local time in the document, for a date field. */
export function localField(iso: string): string {
  return iso.slice(0, 16);
}

export function fromLocalField(text: string): string | null {
  return /^\d{4}-\d\d-\d\dT\d\d:\d\d$/.test(text) ? `${text}:00` : null;
}
