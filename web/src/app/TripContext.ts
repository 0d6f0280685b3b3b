import { createContext, useContext } from "react";
import type { KeptTrip } from "../api/keptTrip";
import type { Rehearsing } from "../api/useRehearsal";

export interface TripHere {
  id: number;
  kept: KeptTrip;
  rehearsing: Rehearsing;
}

export const LAST_TRIP = "tumbrel.last-trip";

export const TripContext = createContext<TripHere | null>(null);

/** The trip that the page is about. */
export function useTripHere(): TripHere {
  const here = useContext(TripContext);
  if (here === null) throw new Error("no trip here");
  return here;
}
