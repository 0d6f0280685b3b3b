import { createContext, useContext } from "react";
import type { KeptKit, KeptTrip } from "../api/keptTrip";
import type { Rehearsing } from "../api/useRehearsal";

export interface TripHere {
  id: number;
  kept: KeptTrip;
  /** The kit that it carries, one for all its trips. */
  kit: KeptKit;
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
