import { type RefObject, useLayoutEffect, useMemo, useRef } from "react";
import type { Cell } from "../../board/Drawing";
import { type Part, wordHeights } from "../../board/workLines";
import type { Rehearsal } from "../../domain/types";
import { type Elastic, elastic, type Fold, paceFor } from "../../scale/elastic";
import { useSame } from "./useSame";
import { useSeen, windowOf } from "./useSeen";

export interface BoardScale {
  /** All legs and stops of what is shown. */
  scale: Elastic;
  /** Of a long board, those near the view. */
  seen: Elastic;
  window: { startMs: number; endMs: number };
}

interface Wanted {
  scroll: RefObject<HTMLElement | null>;
  field: RefObject<HTMLElement | null>;
  rehearsal: Rehearsal;
  /** What is kept: the pace is its, so that nothing jumps while something is pulled. */
  kept: Rehearsal;
  window: { startMs: number; endMs: number };
  fold: Fold;
  /** Height that a day is fitted to [px]. */
  room: number;
  selected: Cell | null;
}

const bandsOf = (scale: Elastic) => scale.bands;

/** Time down the board: a day fits the window where its words allow, and what is looked at stays. */
export function useBoardScale(wanted: Wanted): BoardScale {
  const { scroll, field, rehearsal, kept, window, fold, room, selected } = wanted;
  const pace = useMemo(
    () => paceFor(kept.items, window, fold, needsOf(kept, window), room),
    [kept, window, fold, room],
  );
  const scale = useSame(
    useMemo(
      () => elastic(rehearsal.items, window, fold, needsOf(rehearsal, window), pace),
      [rehearsal, window, fold, pace],
    ),
    bandsOf,
  );
  const always = selected?.item ?? null;
  useStay(scroll, scale, window, always);
  const seen = useSeen(field, scroll, scale, always);
  const seenWindow = useMemo(
    () => (seen === scale ? window : windowOf(seen, window, always)),
    [seen, scale, window, always],
  );
  return { scale, seen, window: seenWindow };
}

function needsOf(rehearsal: Rehearsal, window: Wanted["window"]) {
  const parts = rehearsal.items.flatMap((one): Part[] => {
    const startMs = Math.max(one.start_ms, window.startMs);
    const endMs = Math.min(one.end_ms, window.endMs);
    return endMs > startMs ? [{ id: one.id, startMs, endMs }] : [];
  });
  return wordHeights(rehearsal, parts);
}

/** After a change the leg or stop that is looked at stays where it was in the window. */
function useStay(
  scroll: RefObject<HTMLElement | null>,
  scale: Elastic,
  window: Wanted["window"],
  always: string | null,
): void {
  const before = useRef({ scale, window });
  useLayoutEffect(() => {
    const old = before.current;
    before.current = { scale, window };
    const element = scroll.current;
    if (old.scale === scale || old.window !== window || element === null) return;
    const top = element.scrollTop;
    const seen = (id: string | null) =>
      old.scale.bands.find((one) => one.id === id && one.y1 > top && one.y0 < top + innerHeight);
    const anchor = seen(always) ?? old.scale.bands.find((one) => one.y1 > top);
    const now = scale.bands.find((one) => one.id === anchor?.id);
    if (anchor !== undefined && now !== undefined) element.scrollBy(0, now.y0 - anchor.y0);
  }, [scroll, scale, window, always]);
}
