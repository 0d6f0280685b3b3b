import { useMemo } from "react";
import type { Versioned } from "../api/keeping";
import type { Stepping } from "./StepsContext";

type Ways = Pick<Versioned, "can_undo" | "can_redo" | "undo_at" | "redo_at">;

interface Stepped {
  state: Ways | undefined;
  undo: () => void;
  redo: () => void;
}

/**
 * Undo and redo of what was done last, in whichever of several documents that was.
 *
 * What was undone before something else was done cannot be redone from here any more: as in one
 * document, where a new step lets go what could be redone.
 */
export function lastSteps(parts: readonly (Stepped & { where: string })[]): Stepping {
  const atMs = (at: string | null | undefined) => (at == null ? 0 : Date.parse(at));
  const back = parts
    .filter((one) => one.state?.can_undo === true)
    .sort((a, b) => atMs(b.state?.undo_at) - atMs(a.state?.undo_at))[0];
  const lastMs = atMs(back?.state?.undo_at);
  const onward = parts
    .filter((one) => one.state?.can_redo === true && atMs(one.state.redo_at) >= lastMs)
    .sort((a, b) => atMs(a.state?.redo_at) - atMs(b.state?.redo_at))[0];
  return {
    canUndo: back !== undefined,
    canRedo: onward !== undefined,
    undo: () => back?.undo(),
    redo: () => onward?.redo(),
    undoes: back === undefined ? undefined : `Undo ${back.where}`,
    redoes: onward === undefined ? undefined : `Redo ${onward.where}`,
  };
}

/** Those of a trip and its kit; the same as long as the ways from both are. */
export function useLastSteps(trip: Stepped, kit: Stepped): Stepping {
  const ofTrip = useStepped(trip);
  const ofKit = useStepped(kit);
  return useMemo(
    () =>
      lastSteps([
        { ...ofKit, where: "in the kit" }, // first: a trip goes along with its kit's step
        { ...ofTrip, where: "in the trip" },
      ]),
    [ofTrip, ofKit],
  );
}

/** The steps of a document, without the document. */
function useStepped({ state, undo, redo }: Stepped): Stepped {
  const { can_undo = false, can_redo = false, undo_at = null, redo_at = null } = state ?? {};
  return useMemo(
    () => ({ state: { can_undo, can_redo, undo_at, redo_at }, undo, redo }),
    [can_undo, can_redo, undo_at, redo_at, undo, redo],
  );
}
