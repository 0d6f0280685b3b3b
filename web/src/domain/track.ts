import type { operations } from "../api/schema";
import type { TripAndPlan } from "./edits";
import { METRES_A_MILE, shownIn } from "./measures";
import { withoutNamed } from "./refers";
import type { Item, Leg, TrackLaid, TrackRead, Trip } from "./types";
import { kilometresText } from "./units";

export type Going = NonNullable<operations["layTrack"]["parameters"]["query"]["way"]>;

export const GOINGS: readonly { value: Going; name: string }[] = [
  { value: "foot", name: "on foot, in the air where it is fast" },
  { value: "sled", name: "by sled" },
  { value: "sail", name: "sailing" },
  { value: "ride", name: "riding" },
  { value: "paddle", name: "paddling" },
  { value: "drive", name: "driving" },
];

/** The trip with a track's legs and stops behind those that are there. */
export function withTrackBehind(
  doc: TripAndPlan,
  { laid, behind }: Pick<TrackRead, "laid" | "behind">,
): TripAndPlan {
  const { trip } = doc;
  const place = trip.place ?? laid.place;
  const items = [...trip.items, ...behind];
  return { ...doc, trip: { ...trip, place, items, ways: [...trip.ways, laid.way] } };
}

/** The trip with a track's legs and stops, and its place, instead of those that were there. */
export function withTrack(doc: TripAndPlan, laid: TrackLaid): TripAndPlan {
  return {
    trip: { ...doc.trip, place: laid.place, items: [...laid.items], ways: [laid.way] },
    plan: withoutNamed(doc.plan, "item", () => true),
  };
}

const onFoot = new WeakMap<Item, Item>();

/** The trip as a rehearsal needs it: without its ways, which only drawing needs. */
export function withoutWays(trip: Trip): Trip {
  if (trip.ways.length === 0) return trip;
  const items = trip.items.map((item) => {
    if (item.on_way == null) return item;
    const known = onFoot.get(item);
    if (known !== undefined) return known;
    const bare = { ...item, on_way: null };
    onFoot.set(item, bare);
    return bare;
  });
  return { ...trip, items, ways: [] };
}

/** The trip with its ways taken out and its legs as they are: what is typed from then on. */
export function withoutWay(trip: Trip, way: string): Trip {
  return {
    ...trip,
    ways: trip.ways.filter((one) => one.id !== way),
    items: trip.items.map((one) => (one.on_way?.way === way ? { ...one, on_way: null } : one)),
  };
}

const TOUCHES_M = 1;

/** The next leg on the same way that begins where this one ends; none at a way's end. */
export function legAfter(items: readonly Item[], leg: Leg): Leg | null {
  for (const item of items.slice(items.indexOf(leg) + 1)) {
    if (item.on_way == null || item.on_way.way !== leg.on_way?.way) return null;
    if (item.kind !== "leg") continue;
    return Math.abs(item.on_way.from_m - leg.on_way.to_m) <= TOUCHES_M ? item : null;
  }
  return null;
}

/** A length [m] that fits into some metres, for a scale bar: round in what ways are told in. */
export function scaleBar(mostMetres: number): number {
  const { of, back } = shownIn("m");
  const each = kilometresText(mostMetres).endsWith(" mi") ? METRES_A_MILE : back(1);
  const most = each === METRES_A_MILE ? mostMetres / each : of(mostMetres);
  const size = 10 ** Math.floor(Math.log10(Math.max(1, most)));
  return each * ([5, 2, 1].map((one) => one * size).find((one) => one <= most) ?? size);
}
