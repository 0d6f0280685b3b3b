import { useCallback } from "react";
import type { Kit } from "../domain/types";
import { useTripHere } from "./TripContext";

/** Changes the trip's kit, a step in the kit's own history; resolves when it was sent. */
export function useKeepKit(): (change: (kit: Kit) => Kit) => Promise<void> {
  const { edit, settled } = useTripHere().kit;
  return useCallback(
    (change) => {
      edit((doc) => ({ ...doc, kit: change(doc.kit) }));
      return settled();
    },
    [edit, settled],
  );
}
