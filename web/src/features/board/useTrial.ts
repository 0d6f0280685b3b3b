import { useQueryClient } from "@tanstack/react-query";
import { useCallback, useMemo, useRef, useState } from "react";
import { keepKit } from "../../api/queries";
import { rehearseAside } from "../../api/rehearsals";
import type { Shown } from "../../api/useRehearsal";
import { useTripHere } from "../../app/TripContext";
import { keptCure, withCure } from "../../domain/cures";
import type { Cure, CureTarget, PlanDocument, Rehearsal, TripState } from "../../domain/types";
import type { Curing } from "./Cures";

/** A cure that the board shows and nobody has kept, and how it is kept or left. */
export function useTrial(shown: Shown): { curing: Curing; drawn: Shown; ghost: Rehearsal | null } {
  const { id, kept } = useTripHere();
  const cache = useQueryClient();
  const [trial, setTrial] = useState<(Shown & { cure: Cure; of: PlanDocument }) | null>(null);
  const [open, setOpen] = useState<CureTarget | null>(null);
  const [error, setError] = useState<string | null>(null);
  const fail = useCallback(
    (problem: unknown) => setError(problem instanceof Error ? problem.message : String(problem)),
    [],
  );
  const newest = useRef(0);
  const { document } = shown;
  const onTry = useCallback(
    (cure: Cure | null) => {
      newest.current += 1;
      const mine = newest.current;
      if (cure === null) {
        setTrial(null);
        return;
      }
      const changed = withCure(document, cure);
      setError(null);
      rehearseAside(changed)
        .then((rehearsal) => {
          if (mine !== newest.current) return;
          setTrial({ document: changed, rehearsal, cure, of: document });
        })
        .catch(fail);
    },
    [document, fail],
  );
  const { edit, state } = kept;
  const onKeep = useCallback(
    (cure: Cure) => {
      setTrial(null);
      setError(null);
      // a cure is of what was rehearsed: an edit made since must not be lost with it
      if (state === undefined || state.plan !== document.plan) return;
      if (cure.trip != null || cure.plan != null) edit((doc) => keptCure(doc, cure));
      if (cure.kit == null) return;
      keepKit(state.kit_id, state.kit, cure.kit)
        .then((saved) => {
          cache.setQueryData(["kit", saved.id], saved);
          cache.setQueryData<TripState>(["trip", id], (old) => old && { ...old, kit: saved.kit });
        })
        .catch(fail);
    },
    [cache, document, edit, fail, id, state],
  );
  // an edit made meanwhile leaves the trial behind
  const still = trial !== null && trial.of === document ? trial : null;
  const trip = state?.trip;
  const whole = useMemo<PlanDocument>(
    () => (trip === undefined ? document : { ...document, trip }),
    [trip, document],
  );
  const curing = useMemo(
    () => ({
      document: whole,
      tried: still?.cure ?? null,
      headline: still?.rehearsal.verdict.headline ?? "",
      error,
      onTry,
      onKeep,
      open,
      onOpen: (target: CureTarget | null) => {
        onTry(null);
        setOpen(target);
      },
    }),
    [whole, still, error, onTry, onKeep, open],
  );
  // over the same times the change is drawn upon what is; with other times it is drawn instead
  const over = still !== null && sameTimes(still.rehearsal, shown.rehearsal);
  return {
    curing,
    drawn: still === null || over ? shown : still,
    ghost: over ? still.rehearsal : null,
  };
}

function sameTimes(one: Rehearsal, other: Rehearsal): boolean {
  return (
    one.items.length === other.items.length &&
    one.items.every((item, place) => {
      const mine = other.items[place];
      return item.id === mine?.id && item.start_ms === mine.start_ms && item.end_ms === mine.end_ms;
    })
  );
}
