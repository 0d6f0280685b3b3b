import { type Query, useQueryClient } from "@tanstack/react-query";
import { useEffect } from "react";
import { type KeptKit, useKeptKit } from "../api/keptTrip";
import type { TripState } from "../domain/types";
import { useTripHere } from "./TripContext";

/** The kit of the open trip. The trip's rehearsal follows it as it is edited, saved or not. */
export function useTripKit(kitId: number): KeptKit {
  const { id: tripId } = useTripHere();
  const kept = useKeptKit(kitId);
  const cache = useQueryClient();
  const kit = kept.state?.kit;
  useEffect(() => {
    if (kit === undefined) return;
    cache.setQueryData<TripState>(["trip", tripId], (old) =>
      old && old.kit !== kit ? { ...old, kit } : old,
    );
    const isOther = (query: Query) => query.queryKey[0] === "trip" && query.queryKey[1] !== tripId;
    void cache.invalidateQueries({ predicate: isOther, refetchType: "none" });
  }, [cache, kit, tripId]);
  return kept;
}
