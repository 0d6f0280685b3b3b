import { queryOptions } from "@tanstack/react-query";
import type { Way } from "../domain/track";
import { client, csrfToken, type Schemas, unwrap } from "./client";

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
  kits: () => queryOptions({ queryKey: ["kits"], queryFn: () => unwrap(client.GET("/api/kits")) }),
  kit: (id: number) =>
    queryOptions({
      queryKey: ["kit", id],
      queryFn: () => unwrap(client.GET("/api/kits/{kit_id}", { params: { path: { kit_id: id } } })),
      staleTime: Infinity,
    }),
};

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
  return sendFile<Schemas["TripState"]>("/api/plan-files", "application/json", file);
}

export interface TrackAsked {
  file: Blob;
  way: Way;
  factor: number;
  start: string;
  taken: readonly string[];
}

/** Legs and stops of a GPX or GeoJSON file; keeps nothing. */
export function layTrack(asked: TrackAsked): Promise<Schemas["TrackLaid"]> {
  const { file, way, factor, start, taken } = asked;
  const query = new URLSearchParams({
    way,
    factor: String(factor),
    start,
    taken: taken.join(","),
  });
  return sendFile(`/api/tracks?${query.toString()}`, "application/octet-stream", file);
}

/** The air of every leg and stop by made-up weather, or by the hours of a CSV; keeps nothing. */
export function airOf(
  trip: Schemas["Trip"],
  file: { text: string; name: string } | null,
): Promise<Schemas["AirTold"][]> {
  const { text, name } = file ?? { text: null, name: "made-up weather" };
  return unwrap(client.POST("/api/air", { body: { trip, text, name } }));
}

function sendFile<Answer>(address: string, type: string, body: BodyInit): Promise<Answer> {
  return unwrap(
    fetch(address, {
      method: "POST",
      headers: { "Content-Type": type, "X-CSRFToken": csrfToken() },
      body,
    }).then(async (response) => {
      const told: unknown = await response.json().catch(() => null);
      return response.ok ? { data: told as Answer, response } : { error: told, response };
    }),
  );
}
