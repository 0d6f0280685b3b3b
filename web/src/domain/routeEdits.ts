import * as assumed from "./assumed";
import { freshKey } from "./edits";
import type { AirTold, Item, Leg, Stop, Trip } from "./types";

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

/** Where the air and the time of what is new come from. */
export const UNSAID = {
  air_from: "",
  temp_doubt_k: 0,
  sky_doubt: 0,
  typed: [],
  timed_by: "hand",
  on_way: null,
  spot: null,
} satisfies Partial<Item>;

type Typed = Item["typed"][number];

/** What is typed over what weather or height gave: weather leaves it alone from then on. */
export function typedOver(item: Item, value: Typed): Pick<Item, "typed"> {
  return { typed: item.typed.includes(value) ? item.typed : [...item.typed, value] };
}

/** The trip in the air that weather gives its legs and stops, but for what was typed; one edit. */
export function withAir(trip: Trip, told: readonly AirTold[], source: string): Trip {
  const by = new Map(told.map((one) => [one.item, one]));
  return {
    ...trip,
    items: trip.items.map((item) => {
      const air = by.get(item.id);
      if (air === undefined) return item;
      const { temp_start_c, temp_end_c, temp_doubt_k, sky, sky_doubt } = air;
      const is = (value: Typed) => item.typed.includes(value);
      const warm = {
        ...(is("temp") ? {} : { temp_start_c, temp_end_c, temp_doubt_k }),
        ...(is("sky") ? {} : { sky, sky_doubt }),
        air_from: source.slice(0, 60),
      };
      if (item.kind === "stop") return { ...item, ...warm };
      const blows = is("wind") || air.air_mps == null;
      const wind = blows ? {} : { air_mps: air.air_mps, air_doubt_mps: air.air_doubt_mps };
      return { ...item, ...warm, ...wind } as Leg;
    }),
  };
}

const TYPED_NAMES: Record<Typed, string> = {
  temp: "temperature",
  sky: "sky",
  wind: "airflow",
};

/** Where a stretch's air came from: "air by hours.csv, temperature typed". */
export function airFromText({ air_from, typed }: Item): string {
  const over = typed.map((one) => TYPED_NAMES[one]).join(" and ");
  if (air_from === "") return "";
  return `air by ${air_from}${over === "" ? "" : `, ${over} typed`}`;
}

/** A leg or stop of another length, typed by hand; sleep that no longer fits goes. */
export function withDuration(item: Item, duration_s: number): Item {
  const next = { ...item, duration_s, timed_by: "hand" as const };
  const fits =
    next.kind === "leg" ||
    next.asleep == null ||
    next.asleep.start_s + next.asleep.duration_s <= duration_s;
  return fits ? next : { ...next, asleep: null };
}

const LEAST_PART_S = 60;

/** Whether a leg is long enough to be parted. */
export function canPart(leg: Leg): boolean {
  return leg.duration_s >= 2 * LEAST_PART_S;
}

/** Where a leg is parted, seconds after it begins: at a moment within it, else half way. */
export function partedAfter(leg: Leg, startMs: number, atMs: number): number {
  const wanted = (atMs - startMs) / 1000;
  const inside = wanted > 0 && wanted < leg.duration_s;
  const after = inside ? wanted : leg.duration_s / 2;
  return Math.round(Math.min(Math.max(after, LEAST_PART_S), leg.duration_s - LEAST_PART_S));
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
    ...UNSAID,
    snow: before?.snow ?? false,
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
    activity: "walk",
    hands: "stops",
    air_mps: usualAir("walk"),
    ...DRY_AND_SLOW,
    height_start_m: height,
    height_end_m: height,
  } satisfies Leg;
}

const USUAL_AIR: Record<Leg["activity"], number> = {
  climb: assumed.air_climb_mps,
  walk: assumed.air_walk_mps,
  descent: assumed.air_descent_mps,
  flight: assumed.air_flight_mps,
  sled: assumed.air_sled_mps,
  sail: assumed.air_sail_mps,
  ride: assumed.air_ride_mps,
  paddle: assumed.air_paddle_mps,
  drive: assumed.air_drive_mps,
  other: 0,
};

/** Airflow on the kit where none was typed: the usual speed of an activity [m/s]. */
export function usualAir(activity: Leg["activity"]): number {
  return USUAL_AIR[activity];
}

/** Another activity; its airflow comes with it, unless one was typed. */
export function withActivity(leg: Leg, activity: Leg["activity"]): Leg {
  const untouched = leg.air_mps === usualAir(leg.activity) || leg.air_mps === 0;
  return { ...leg, activity, air_mps: untouched ? usualAir(activity) : leg.air_mps };
}

/** What a leg has that a stop has not, when it is new. */
const DRY_AND_SLOW = {
  air_doubt_mps: 0,
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
  const { snow, sun_share, gloves, sky, sky_doubt, moments } = item;
  const { temp_doubt_k, air_from, typed } = item;
  const warm = { temp_start_c, temp_end_c, temp_doubt_k, air_from, typed };
  const air = { ...warm, snow, sun_share, gloves, sky, sky_doubt, moments };
  const hand = { timed_by: "hand", on_way: null, spot: item.spot } as const;
  const shared = { id, name, duration_s, not_before, ...hand, ...air };
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
