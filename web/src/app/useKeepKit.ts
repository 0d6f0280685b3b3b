import { useQueryClient } from "@tanstack/react-query";
import { useCallback } from "react";
import { keepKit } from "../api/queries";
import type { Kit, TripState } from "../domain/types";
import { useTripHere } from "./TripContext";

/** Keeps the trip's kit changed, a step in the kit's own history; refused when it changed elsewhere. */
export function useKeepKit(): (kit: Kit) => Promise<void> {
  const { id, kept } = useTripHere();
  const cache = useQueryClient();
  const { state } = kept;
  return useCallback(
    async (kit: Kit) => {
      if (state === undefined) return;
      const saved = await keepKit(state.kit_id, state.kit, kit);
      cache.setQueryData(["kit", saved.id], saved);
      cache.setQueryData<TripState>(["trip", id], (old) => old && { ...old, kit: saved.kit });
    },
    [cache, id, state],
  );
}
