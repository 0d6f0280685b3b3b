import type { operations } from "../api/schema";
import type { TripAndPlan } from "./edits";
import type { TrackLaid } from "./types";

export type Way = NonNullable<operations["layTrack"]["parameters"]["query"]["way"]>;

export const WAYS: readonly { value: Way; name: string }[] = [
  { value: "foot", name: "on foot, in the air where it is fast" },
  { value: "sled", name: "by sled" },
  { value: "sail", name: "sailing" },
  { value: "ride", name: "riding" },
  { value: "paddle", name: "paddling" },
  { value: "drive", name: "driving" },
];

/** The trip with a track's legs and stops, behind those that are there or in their stead. */
export function withTrack(doc: TripAndPlan, laid: TrackLaid, instead: boolean): TripAndPlan {
  const place = doc.trip.place ?? laid.place;
  if (!instead)
    return { ...doc, trip: { ...doc.trip, place, items: [...doc.trip.items, ...laid.items] } };
  return {
    trip: { ...doc.trip, place, items: [...laid.items] },
    plan: { ...doc.plan, assignments: [], swaps: [], copies: [] },
  };
}

/** What a place along the way is: metres along, its height, and the leg that it lies on. */
export interface Here {
  x: number;
  y: number;
  along: number;
  height: number;
  leg: number;
}

/** The point of a thinned track at a share of its way, and the number of the leg it lies on. */
export function hereAt({ picture }: TrackLaid, share: number): Here {
  const place = Math.round(share * (picture.along_m.length - 1));
  const along = picture.along_m[place] ?? 0;
  const leg = picture.starts_m.filter((start) => start <= along + 1e-6).length - 1;
  return {
    x: picture.x_m[place] ?? 0,
    y: picture.y_m[place] ?? 0,
    along,
    height: picture.height_m[place] ?? 0,
    leg: Math.max(0, leg),
  };
}

/** A round length that fits into some metres, for a scale bar. */
export function scaleBar(mostMetres: number): number {
  const size = 10 ** Math.floor(Math.log10(Math.max(1, mostMetres)));
  return [5, 2, 1].map((one) => one * size).find((one) => one <= mostMetres) ?? size;
}
