import type { Clock } from "./clock";
import type { Item, ItemTold, RouteTold, Trip } from "./types";
import {
  angleText,
  doubtText,
  kilometresText,
  metresText,
  speedText,
  temperatureText,
} from "./units";

/** A moment on the route: the leg or stop that it falls on, and what is there. */
export interface Here {
  ms: number;
  item: string;
  /** How much of the leg or stop has passed, 0 to 1. */
  share: number;
  along: number | null;
  height: number | null;
  sun: number | null;
  kit: number | null;
  side: number | null;
  /** Metres east and north in the plan. */
  at: readonly [number, number] | null;
}

export function endOf(told: RouteTold): number {
  return told.items.at(-1)?.end_ms ?? 0;
}

/** Where one is at a time; in a wait, at the end of what is before it. */
export function hereAt(told: RouteTold, trip: Trip, ms: number): Here | null {
  const inside =
    told.items.find((one) => ms < one.end_ms && ms >= one.start_ms) ??
    told.items.findLast((one) => one.start_ms <= ms) ??
    told.items[0];
  if (inside === undefined) return null;
  const length = Math.max(1, inside.end_ms - inside.start_ms);
  const share = Math.min(1, Math.max(0, (ms - inside.start_ms) / length));
  const along = between(inside.along_m, share);
  return {
    ms,
    item: inside.item,
    share,
    along,
    height: between(inside.height_m, share),
    sun: between(inside.sun_deg, share),
    kit: between(inside.kit_w_m2, share),
    side: inside.sun_from_deg[Math.round(share * (inside.sun_from_deg.length - 1))] ?? null,
    at: along === null ? null : pointAt(told, trip, inside.item, along),
  };
}

/** The value of an even column at a share of its length; null when it is empty. */
export function between(column: readonly number[], share: number): number | null {
  const place = share * (column.length - 1);
  const before = column[Math.floor(place)];
  if (before === undefined) return null;
  const after = column[Math.ceil(place)] ?? before;
  return before + (after - before) * (place - Math.floor(place));
}

/** A place along an item's way in the plan. */
export function pointAt(
  told: RouteTold,
  trip: Trip,
  item: string,
  along: number,
): readonly [number, number] | null {
  const way = trip.ways.find(
    (one) => one.id === trip.items.find((each) => each.id === item)?.on_way?.way,
  );
  const plan = told.plans.find((one) => one.way === way?.id);
  if (way === undefined || plan === undefined) return null;
  const share = along / way.length_m;
  const x = between(plan.x_m, share);
  const y = between(plan.y_m, share);
  return x === null || y === null ? null : [x, y];
}

/** When one passes the place of the ways that is nearest to a point of the plan. */
export function msNear(told: RouteTold, trip: Trip, x: number, y: number): number | null {
  let best = Infinity;
  let found: { way: string; along: number } | null = null;
  for (const plan of told.plans) {
    const way = trip.ways.find((one) => one.id === plan.way);
    if (way === undefined) continue;
    plan.x_m.forEach((each, place) => {
      const apart = Math.hypot(each - x, (plan.y_m[place] ?? 0) - y);
      if (apart < best) {
        best = apart;
        found = { way: way.id, along: (place / (plan.x_m.length - 1)) * way.length_m };
      }
    });
  }
  return found === null ? null : msAlong(told, trip, found);
}

function msAlong(
  told: RouteTold,
  trip: Trip,
  { way, along }: { way: string; along: number },
): number | null {
  for (const item of trip.items) {
    const lies = item.on_way;
    if (item.kind !== "leg" || lies?.way !== way || along < lies.from_m || along > lies.to_m)
      continue;
    const mine = told.items.find((one) => one.item === item.id);
    if (mine !== undefined) return msIn(mine, along);
  }
  return null;
}

/** When one passes a place along a leg. */
export function msIn(told: ItemTold, along: number): number {
  const place = told.along_m.findIndex((each) => each >= along);
  if (place <= 0) return told.start_ms;
  const [low, high] = [told.along_m[place - 1] ?? 0, told.along_m[place] ?? 0];
  const [from, to] = [told.at_ms[place - 1] ?? 0, told.at_ms[place] ?? 0];
  return from + (high > low ? (along - low) / (high - low) : 0) * (to - from);
}

/** "Day 2, 10:42 · climb · 4.2 km, 1 840 m · 6° ± 3 · air 1 m/s · sun 34° up, from the right, 410 W/m² on the kit" */
export function hereWords(here: Here, item: Item, clock: Clock): string {
  const warm = item.temp_start_c + (item.temp_end_c - item.temp_start_c) * here.share;
  const doubt = doubtText(item.temp_doubt_k);
  return [
    clock.full(here.ms),
    item.name,
    here.along === null ? "" : kilometresText(here.along),
    here.height === null ? "" : metresText(here.height),
    `${temperatureText(warm)}${doubt}`,
    item.kind === "leg" ? `air ${speedText(item.air_mps)}` : "",
    here.sun === null ? "" : sunWords(here.sun, here.side, here.kit ?? 0),
  ]
    .filter(Boolean)
    .join(" · ");
}

const UNDER = -0.833;
const DARK = -6;

function sunWords(height: number, side: number | null, kit: number): string {
  if (height < DARK) return "night";
  if (height < UNDER) return "twilight";
  const from = side === null ? "" : `, ${sideWords(side)}`;
  return `sun ${angleText(height)} up${from}, ${String(Math.round(kit))} W/m² on the kit`;
}

/** Where the sun stands from the direction of travel: ahead, behind, or to a side. */
export function sideWords(side: number): string {
  const turn = Math.abs(side);
  if (turn < 30) return "ahead";
  if (turn > 150) return "from behind";
  return side > 0 ? "from the right" : "from the left";
}
