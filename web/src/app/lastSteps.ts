import { useQueryClient } from "@tanstack/react-query";
import { useCallback, useMemo, useRef } from "react";
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

interface Kept extends Stepped {
  settled: () => Promise<void>;
}

const WAIT_MS = 20;
const WAITS = 100;

/**
 * Those of a trip and its kit; the same as long as the ways from both are. One that is pressed
 * while another is under way waits for it, and is of what is the last by then.
 */
export function useLastSteps(id: number, kitId: number, trip: Kept, kit: Kept): Stepping {
  const cache = useQueryClient();
  const ofTrip = useStepped(trip);
  const ofKit = useStepped(kit);
  const turn = useRef(Promise.resolve());
  const inTurn = useCallback(
    (way: "undo" | "redo") => {
      const states = { trip: ["trip", id], kit: ["kit", kitId] };
      const isUnderWay = () =>
        Object.values(states).some((queryKey) => cache.isFetching({ queryKey }));
      const step = async () => {
        await ofKit.settled();
        await ofTrip.settled();
        for (let waits = 0; isUnderWay() && waits < WAITS; waits += 1)
          await new Promise((done) => setTimeout(done, WAIT_MS));
        const now = (key: readonly unknown[]) => cache.getQueryData<Ways>(key);
        ofBoth({ ...ofTrip, state: now(states.trip) }, { ...ofKit, state: now(states.kit) })[way]();
      };
      turn.current = turn.current.then(step);
    },
    [cache, id, kitId, ofTrip, ofKit],
  );
  return useMemo(
    () => ({
      ...ofBoth(ofTrip, ofKit),
      undo: () => inTurn("undo"),
      redo: () => inTurn("redo"),
    }),
    [ofTrip, ofKit, inTurn],
  );
}

function ofBoth(trip: Stepped, kit: Stepped): Stepping {
  return lastSteps([
    { ...kit, where: "in the kit" }, // first: a trip goes along with its kit's step
    { ...trip, where: "in the trip" },
  ]);
}

/** The steps of a document, without the document. */
function useStepped({ state, undo, redo, settled }: Kept): Kept {
  const { can_undo = false, can_redo = false, undo_at = null, redo_at = null } = state ?? {};
  return useMemo(
    () => ({ state: { can_undo, can_redo, undo_at, redo_at }, undo, redo, settled }),
    [can_undo, can_redo, undo_at, redo_at, undo, redo, settled],
  );
}
