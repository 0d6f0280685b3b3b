import { queryOptions } from "@tanstack/react-query";
import { client, type Schemas, unwrap } from "./client";

export type Start = NonNullable<Schemas["VariantNew"]["start"]>;

/** The variants of a trip, and what is done with them. */
export const variants = {
  list: (trip: number) =>
    queryOptions({
      queryKey: ["variants", trip],
      queryFn: () => unwrap(client.GET("/api/trips/{trip_id}/variants", tripPath(trip))),
    }),
  compared: (trip: number, of: readonly number[], version: number) =>
    queryOptions({
      queryKey: ["comparison", trip, of.join(","), version],
      queryFn: () =>
        unwrap(
          client.GET("/api/trips/{trip_id}/comparison", {
            params: { ...tripPath(trip).params, query: { of: of.join(",") } },
          }),
        ),
      enabled: of.length > 0,
    }),
  keep: (trip: number, body: Schemas["VariantNew"]) =>
    unwrap(client.POST("/api/trips/{trip_id}/variants", { ...tripPath(trip), body })),
  get: (trip: number, variant: number) =>
    unwrap(
      client.GET("/api/trips/{trip_id}/variants/{variant_id}", {
        params: { path: { trip_id: trip, variant_id: variant } },
      }),
    ),
  rename: (trip: number, variant: number, name: string) =>
    unwrap(
      client.PUT("/api/trips/{trip_id}/variants/{variant_id}", {
        params: { path: { trip_id: trip, variant_id: variant } },
        body: { name },
      }),
    ),
  remove: async (trip: number, variant: number) => {
    await unwrap(
      client.DELETE("/api/trips/{trip_id}/variants/{variant_id}", {
        params: { path: { trip_id: trip, variant_id: variant } },
      }),
    );
  },
};

function tripPath(trip: number) {
  return { params: { path: { trip_id: trip } } };
}
