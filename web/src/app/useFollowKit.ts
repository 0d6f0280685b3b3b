import { type Query, useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useRef } from "react";
import { queries } from "../api/queries";
import { hearTabs } from "../api/tabs";
import type { TripState } from "../domain/types";

/** The open trip's rehearsal follows its kit as that is edited, saved or not, wherever one is. */
export function useFollowKit(tripId: number, kitId: number | undefined): void {
  const cache = useQueryClient();
  const kit = useQuery({ ...queries.kit(kitId ?? 0), enabled: false }).data?.kit;
  useEffect(() => {
    if (kitId === undefined) return;
    return hearTabs(["kit", kitId], () => {
      void cache.invalidateQueries({ queryKey: ["trip", tripId] });
    });
  }, [cache, kitId, tripId]);
  // what was known of the kit before the trip was opened may be older than the trip
  const known = useRef(kit);
  useEffect(() => {
    if (kit === undefined || kit === known.current) return;
    known.current = kit;
    cache.setQueryData<TripState>(["trip", tripId], (old) =>
      old && old.kit !== kit ? { ...old, kit } : old,
    );
    const isOther = (query: Query) => query.queryKey[0] === "trip" && query.queryKey[1] !== tripId;
    void cache.invalidateQueries({ predicate: isOther, refetchType: "none" });
  }, [cache, kit, tripId]);
}
