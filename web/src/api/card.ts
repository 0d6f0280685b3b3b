import { queryOptions } from "@tanstack/react-query";
import type { Tick } from "../pocket/ticks";
import { client, csrfToken, Refused, type Schemas, Unreachable, unwrap } from "./client";

export type CardForm = "html" | "ics" | "csv";

const path = (trip: number) => ({ params: { path: { trip_id: trip } } });

/** The card of a trip, in the version that is kept. */
export function cardOf(trip: number, version: number) {
  return queryOptions({
    queryKey: ["card", trip, version],
    queryFn: () => unwrap(client.GET("/api/trips/{trip_id}/card", path(trip))),
    enabled: version > 0,
    // another version of the same trip takes the place of what is shown once it is there
    placeholderData: (before, query) => (query?.queryKey[1] === trip ? before : undefined),
    gcTime: 0, // what is shown again is asked again: it may have been ticked elsewhere
  });
}

/** Adds ticks that are not there yet; all that the trip has then. */
export async function addTicks(
  trip: number,
  ticks: readonly Tick[],
): Promise<readonly Schemas["Tick"][]> {
  const body = { ticks: [...ticks] };
  return (await unwrap(client.POST("/api/trips/{trip_id}/ticks", { ...path(trip), body }))).ticks;
}

/** The card to take along: a file and its name. */
export async function takeCard(
  trip: number,
  form: CardForm,
): Promise<{ name: string; file: Blob }> {
  const answer = await fetch(`/api/trips/${String(trip)}/card-file?form=${form}`, {
    method: "POST",
    headers: { "X-CSRFToken": csrfToken() },
  }).catch(() => {
    throw new Unreachable();
  });
  if (!answer.ok) throw new Refused((await answer.json()) as Schemas["ProblemOut"]);
  const said = answer.headers.get("Content-Disposition") ?? "";
  const name = /filename="([^"]+)"/.exec(said)?.[1] ?? `card.${form}`;
  return { name, file: await answer.blob() };
}
