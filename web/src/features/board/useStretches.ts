import { type RefObject, useCallback, useRef, useState } from "react";
import type { Cell } from "../../board/Drawing";
import { sameCell } from "../../board/selection";
import type { Rehearsal } from "../../domain/types";
import type { Hand } from "./useHand";

export type Open =
  | { kind: "cells"; cells: readonly Cell[] }
  | { kind: "camera"; camera: string }
  | { kind: "plan" }
  | null;

export interface Stretches {
  selected: Cell | null;
  /** More than one cell chosen at once; empty when only one is. */
  many: readonly Cell[];
  open: Open;
  select: (cell: Cell) => void;
  selectMany: (cells: readonly Cell[], focus: Cell) => void;
  openCell: (cell: Cell) => void;
  openCells: (cells: readonly Cell[]) => void;
  openCamera: (camera: string) => void;
  openPlan: () => void;
  close: () => void;
  /** Go to a cell at a moment, on whichever day it is. */
  goTo: (cell: Cell, ms: number) => void;
}

const NONE: readonly Cell[] = [];
const DRAWN_BY_MS = 5000;

/** Which cells of the board are selected, and which strip is open. */
export function useStretches(
  frame: RefObject<HTMLElement | null>,
  rehearsal: Rehearsal,
  hand: Hand,
  first: Cell | null,
): Stretches {
  const { pinned, point, move, now, day } = hand;
  const [selected, setSelected] = useState<Cell | null>(first);
  const [many, setMany] = useState<readonly Cell[]>(NONE);
  const [open, setOpen] = useState<Open>(null);
  const asked = useRef(0);
  const focus = useCallback(
    ({ item, camera }: Cell) => {
      // a cell far off is drawn a moment after it is chosen: whoever has gone elsewhere stays there
      const until = performance.now() + DRAWN_BY_MS;
      const from = document.activeElement;
      const mine = ++asked.current;
      const attempt = () => {
        const at = document.activeElement;
        if (mine !== asked.current || (at !== from && at !== document.body)) return;
        const name = `[data-cell="${item}/${camera}"]`;
        const found = frame.current?.querySelector<HTMLElement>(name);
        if (found != null) found.focus();
        else if (performance.now() < until) requestAnimationFrame(attempt);
      };
      attempt();
    },
    [frame],
  );
  const goTo = useCallback(
    (cell: Cell, ms: number) => {
      move(ms);
      setSelected(cell);
      setMany(NONE);
      setOpen(null);
      requestAnimationFrame(() => focus(cell));
    },
    [focus, move],
  );
  const bring = useCallback(
    (cell: Cell) => {
      setSelected(cell);
      const laid = rehearsal.items.find((one) => one.id === cell.item);
      const inside = laid !== undefined && now() >= laid.start_ms && now() < laid.end_ms;
      if (laid && !pinned && !inside) point(Math.max(laid.start_ms, day.startMs));
    },
    [rehearsal, pinned, now, point, day.startMs],
  );
  const select = useCallback(
    (cell: Cell) => {
      setMany(NONE);
      bring(cell);
    },
    [bring],
  );
  const selectMany = useCallback(
    (cells: readonly Cell[], at: Cell) => {
      setMany(cells.length > 1 ? cells : NONE);
      bring(at);
    },
    [bring],
  );
  const openCells = useCallback((cells: readonly Cell[]) => {
    const [lead] = cells;
    if (lead === undefined) return;
    setSelected(lead);
    setMany(cells.length > 1 ? cells : NONE);
    setOpen({ kind: "cells", cells });
  }, []);
  const openCell = useCallback(
    (cell: Cell) => openCells(many.some((one) => sameCell(one, cell)) ? many : [cell]),
    [openCells, many],
  );
  const openCamera = useCallback((camera: string) => setOpen({ kind: "camera", camera }), []);
  const openPlan = useCallback(() => setOpen({ kind: "plan" }), []);
  const close = useCallback(() => {
    setOpen(null);
    setMany(NONE);
    if (open?.kind === "cells" && open.cells[0]) focus(open.cells[0]);
  }, [focus, open]);
  return {
    selected,
    many,
    open,
    select,
    selectMany,
    openCell,
    openCells,
    openCamera,
    openPlan,
    close,
    goTo,
  };
}
