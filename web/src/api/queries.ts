import { withoutWays } from "../domain/track";
import { rehearseAside } from "./rehearsals";
import { SCHEMA } from "./schema-number";
import { type QueryClient, queryOptions } from "@tanstack/react-query";
import type { Going } from "../domain/track";
import { client, type Schemas, sendAtOnce, unwrap } from "./client";

/** Every query of the page, made in one place. */
export const queries = {
  trips: () =>
    queryOptions({ queryKey: ["trips"], queryFn: () => unwrap(client.GET("/api/trips")) }),
  trip: (id: number) =>
    queryOptions({
      queryKey: ["trip", id],
      queryFn: () =>
        unwrap(client.GET("/api/trips/{trip_id}", { params: { path: { trip_id: id } } })),
      staleTime: Infinity,
    }),
  /** A trip as it was saved, rehearsed after everything that is edited. */
  tripTold: (id: number, savedAt: string) =>
    queryOptions({
      queryKey: ["trip-told", id, savedAt],
      queryFn: async ({ signal }) => {
        const params = { path: { trip_id: id } };
        const asked = client.GET("/api/trips/{trip_id}", { params, signal });
        const { kit, trip, plan } = await unwrap(asked);
        const document = { tumbrel: SCHEMA, kit, trip: withoutWays(trip), plan };
        return { document, rehearsal: await rehearseAside(document, signal) };
      },
      staleTime: Infinity,
    }),
  bin: () => queryOptions({ queryKey: ["bin"], queryFn: () => unwrap(client.GET("/api/bin")) }),
  kits: () => queryOptions({ queryKey: ["kits"], queryFn: () => unwrap(client.GET("/api/kits")) }),
  /** What was measured and not taken, in some air; asked anew whenever it is looked at. */
  beside: (kit: number, version: number, there: Schemas["AirThere"]) =>
    queryOptions({
      queryKey: ["beside", kit, version, there],
      queryFn: () => tellBeside({ kit, version, there }),
    }),
  zone: (latitude: number, longitude: number) =>
    queryOptions({
      queryKey: ["zone", latitude, longitude],
      queryFn: () =>
        unwrap(client.GET("/api/time-zone", { params: { query: { latitude, longitude } } })),
      staleTime: Infinity,
    }),
  kit: (id: number) =>
    queryOptions({
      queryKey: ["kit", id],
      queryFn: () => unwrap(client.GET("/api/kits/{kit_id}", { params: { path: { kit_id: id } } })),
      staleTime: Infinity,
    }),
};

/**
 * Ask again what a deletion or a putting back changes. What a trip was told as it was saved then
 * stands: asked again with the rest, it rehearsed every trip in the list before the bin was drawn.
 */
export function listsChanged(cache: QueryClient): Promise<void> {
  return cache.invalidateQueries({ predicate: ({ queryKey }) => queryKey[0] !== "trip-told" });
}

export function tellFamily(question: Schemas["FamilyQuestion"]): Promise<Schemas["FamilyTold"]> {
  return unwrap(client.POST("/api/family", { body: question }));
}

/** In which air, and of which state: the versions of kit and notebook as they are kept. */
export interface BesideAsked {
  kit: number;
  version: number;
  notebook?: number;
  there: Schemas["AirThere"];
}

export function tellBeside({ kit, there }: BesideAsked): Promise<Schemas["MeasuredBeside"][]> {
  return unwrap(
    client.POST("/api/kits/{kit_id}/bench/beside", {
      params: { path: { kit_id: kit } },
      body: there,
    }),
  );
}

export function hangShelf(question: Schemas["ShelfQuestion"]): Promise<Schemas["Shelf"]> {
  return unwrap(client.POST("/api/shelf", { body: question }));
}

export type TripAsked = Schemas["TripNew"];

export function makeTrip(asked: TripAsked): Promise<Schemas["TripState"]> {
  return unwrap(client.POST("/api/trips", { body: asked }));
}

export function deleteTrip(id: number): Promise<unknown> {
  return unwrap(client.DELETE("/api/trips/{trip_id}", { params: { path: { trip_id: id } } }));
}

export type Binned = Schemas["Binned"];

/** Put a trip or kit back from the bin. */
export function takeOut({ kind, id }: Pick<Binned, "kind" | "id">): Promise<unknown> {
  const params = { path: { kind, number: id } };
  return unwrap(client.POST("/api/bin/{kind}/{number}", { params }));
}

/** Delete what is in the bin for good. */
export function letGo({ kind, id }: Pick<Binned, "kind" | "id">): Promise<unknown> {
  const params = { path: { kind, number: id } };
  return unwrap(client.DELETE("/api/bin/{kind}/{number}", { params }));
}

export function deleteKit(id: number): Promise<unknown> {
  return unwrap(client.DELETE("/api/kits/{kit_id}", { params: { path: { kit_id: id } } }));
}

/** Load the demo trips that are missing; answers with the main one. */
export function openDemo(): Promise<Schemas["TripState"]> {
  return unwrap(client.POST("/api/demo"));
}

/** Legs and stops of a typed or pasted table; keeps nothing. */
export function readTable(text: string, taken: string[]): Promise<Schemas["Pasted"]> {
  return unwrap(client.POST("/api/trip-table", { body: { text, taken } }));
}

/** Open a plan file; a bad one is refused whole. */
export async function openPlanFile(file: ArrayBuffer): Promise<Schemas["TripState"]> {
  return sendAtOnce<Schemas["TripState"]>("/api/plan-files", "application/json", file);
}

export interface TrackAsked {
  file: Blob;
  way: Going;
  factor: number;
  start: string;
  trip: number;
}

/** Legs and stops of a GPX or GeoJSON file for a trip; keeps nothing. */
export function layTrack(asked: TrackAsked): Promise<Schemas["TrackRead"]> {
  const { file, way, factor, start, trip } = asked;
  const query = new URLSearchParams({
    way,
    factor: String(factor),
    start,
    trip: String(trip),
  });
  return sendAtOnce(`/api/tracks?${query.toString()}`, "application/octet-stream", file);
}

/** A trip and its plan after a correction of its route by hand; keeps nothing. */
export function correctRoute(asked: Schemas["CorrectionAsked"]): Promise<Schemas["TripAndPlan"]> {
  return unwrap(client.POST("/api/corrections", { body: asked }));
}

/** Plan, ground, air and sun of a trip for its picture; keeps nothing. */
export function tellRoute(trip: Schemas["Trip"]): Promise<Schemas["RouteTold"]> {
  return unwrap(client.POST("/api/route", { body: { trip } }));
}

/** Which cameras serve on each leg and stop; keeps nothing. */
export function tellServing(document: Schemas["PlanDocument"]): Promise<Schemas["ServingTold"]> {
  return unwrap(client.POST("/api/serving", { body: document }));
}

/** Light, shutter, filter and slowing of a camera on a leg, with their arithmetic. */
export function bringUp(asked: Schemas["OlderAsked"]): Promise<Schemas["BroughtUp"]> {
  return unwrap(client.POST("/api/brought-up", { body: asked }));
}

export function tellPicture(asked: Schemas["PictureAsked"]): Promise<Schemas["PictureTold"]> {
  return unwrap(client.POST("/api/picture", { body: asked }));
}

/** Where a trip's ways are had as a file. */
export function trackAddress(trip: number, form: "gpx" | "geojson"): string {
  return `/api/trips/${String(trip)}/track?form=${form}`;
}

export type AirAsked = Omit<Schemas["AirAsked"], "trip" | "name"> & { name: string };

/** The air of every leg and stop by a file's hours, a day's low and high, or made up. */
export function airOf(trip: Schemas["Trip"], from: AirAsked): Promise<Schemas["AirTold"][]> {
  return unwrap(client.POST("/api/air", { body: { trip, ...from } }));
}
