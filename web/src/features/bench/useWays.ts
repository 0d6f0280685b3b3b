import { useState } from "react";
import type { BenchRun, NextRun } from "../../domain/types";

export type Way = "start" | "type" | "table" | "meter" | "clips";
export type Known = Partial<BenchRun> | NextRun;

export interface Ways {
  way: Way | null;
  known: Known;
  /** Counts openings, so that a form begins anew with what is known. */
  turn: number;
  open: (way: Way | null, known?: Known) => void;
}

/** Which way of bringing in a run is open, and what is known of that run. */
export function useWays(): Ways {
  const [state, setState] = useState<Omit<Ways, "open">>({
    way: null,
    known: {},
    turn: 0,
  });
  return {
    ...state,
    open: (way, known = {}) => setState((old) => ({ way, known, turn: old.turn + 1 })),
  };
}
