import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import { type Clock, type DayWindow, dayWindows } from "../../domain/clock";
import type { Rehearsal, Trip } from "../../domain/types";

export interface Hand {
  /** The moment that is read out. */
  at: number;
  /** The same as of the last key, ahead of the drawing, so that quick keys each go one further. */
  now: () => number;
  pinned: boolean;
  togglePin: () => void;
  /** Move the hand; the day that is drawn follows it. */
  move: (ms: number) => void;
  /** Move it only within what is drawn. */
  point: (ms: number) => void;
  days: readonly DayWindow[];
  day: DayWindow;
}

/** The hand of the board: its moment, whether it is pinned, and the day that it stands in. */
export function useHand(trip: Trip, rehearsal: Rehearsal, clock: Clock, firstMs: number): Hand {
  const last = rehearsal.duration_ms - 1;
  const days = useMemo(() => dayWindows(trip, rehearsal, clock), [trip, rehearsal, clock]);
  const dayOf = useCallback(
    (ms: number) => (days.find((one) => ms < one.endMs) ?? days.at(-1))?.number ?? 1,
    [days],
  );
  const [handMs, setHand] = useState(firstMs);
  const [number, setNumber] = useState(() => dayOf(firstMs));
  const [pinned, setPinned] = useState(false);
  const ahead = useRef(handMs);
  useEffect(() => {
    ahead.current = handMs;
  }, [handMs]);
  const point = useCallback((ms: number) => setHand(Math.min(Math.max(0, ms), last)), [last]);
  const move = useCallback(
    (ms: number) => {
      const kept = Math.min(Math.max(0, ms), last);
      ahead.current = kept;
      setHand(kept);
      setNumber(dayOf(kept));
    },
    [dayOf, last],
  );
  const now = useCallback(() => ahead.current, []);
  const togglePin = useCallback(() => setPinned((old) => !old), []);
  const whole = { number: 1, startMs: 0, endMs: rehearsal.duration_ms };
  const day = days.find((one) => one.number === number) ?? days[0] ?? whole;
  return {
    at: Math.min(Math.max(0, handMs), last),
    now,
    pinned,
    togglePin,
    move,
    point,
    days,
    day,
  };
}
