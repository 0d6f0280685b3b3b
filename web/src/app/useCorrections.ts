import { useQueryClient } from "@tanstack/react-query";
import { useCallback, useState } from "react";
import { correctRoute } from "../api/queries";
import { useTripHere } from "./TripContext";
import type { TripAndPlan } from "../domain/edits";
import type { Correction, TripState } from "../domain/types";

export interface Corrections {
  /** Correct the route by hand: reckoned by the core, then kept as one step. */
  correct: (correction: Correction, first?: (doc: TripAndPlan) => TripAndPlan) => void;
  busy: boolean;
  error: string | null;
}

const TRIES = 5;

/** Corrections of the route; one that was reckoned on an older trip is reckoned again. */
export function useCorrections(): Corrections {
  const { id, kept } = useTripHere();
  const cache = useQueryClient();
  const [busy, setBusy] = useState(false);
  const [error, setError] = useState<string | null>(null);
  const { edit } = kept;
  const correct: Corrections["correct"] = useCallback(
    (correction, first) => {
      const now = () => cache.getQueryData<TripState>(["trip", id]);
      const reckon = async () => {
        for (let attempt = 0; attempt < TRIES; attempt += 1) {
          const state = now();
          if (state === undefined) return;
          const { trip, plan } = state;
          const doc = first === undefined ? { trip, plan } : first({ trip, plan });
          const after = await correctRoute({ ...doc, correction });
          const still = now();
          if (still?.trip === trip && still.plan === plan) {
            edit(() => after);
            return;
          }
        }
        throw new Error("The trip changed meanwhile. Nothing was corrected; try again.");
      };
      setBusy(true);
      setError(null);
      reckon()
        .catch((problem: unknown) =>
          setError(problem instanceof Error ? problem.message : String(problem)),
        )
        .finally(() => setBusy(false));
    },
    [cache, edit, id],
  );
  return { correct, busy, error };
}
