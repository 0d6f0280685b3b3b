import { createContext, useCallback, useContext, useMemo, useRef, useState } from "react";
import type { TripRows } from "../domain/gone";

/** What was deleted last, or came back by undo, and what of the trips went or came with it. */
export interface Gone {
  what: string | null;
  /** What else is to be said of it. */
  more?: string | undefined;
  went: readonly TripRows[];
  back: readonly TripRows[];
}

export type TellGone = (what: string, more?: string, went?: readonly TripRows[]) => void;

export const GoneContext = createContext<TellGone>(() => undefined);

/** Says that something was deleted, after it was; undo stands beside the words. */
export function useTellGone(): TellGone {
  return useContext(GoneContext);
}

export interface GoneSaid {
  gone: Gone | null;
  tell: TellGone;
  /** Told by the server: what went out of the trips with the last step of the kit, or came back. */
  followed: (went: readonly TripRows[], back: readonly TripRows[]) => void;
  /** Something else was done: undo would take back that. */
  forget: () => void;
}

/** The words about what was deleted last: until something else is done. */
export function useGone(): GoneSaid {
  const [gone, setGone] = useState<Gone | null>(null);
  const isShown = useRef(false);
  const tell = useCallback<TellGone>((what, more, went = []) => {
    isShown.current = true;
    setGone({ what, more, went, back: [] });
  }, []);
  const followed = useCallback<GoneSaid["followed"]>((went, back) => {
    if (went.length === 0 && back.length === 0) return;
    isShown.current = true;
    setGone((old) => ({ what: null, ...(went.length > 0 ? old : null), went, back }));
  }, []);
  const forget = useCallback(() => {
    if (!isShown.current) return;
    isShown.current = false;
    setGone(null);
  }, []);
  return useMemo(() => ({ gone, tell, followed, forget }), [gone, tell, followed, forget]);
}
