import { type RefObject, useCallback, useState } from "react";
import type { Cell } from "../../board/Drawing";
import type { Rehearsal } from "../../domain/types";
import type { Hand } from "./useHand";

export type Open =
  { kind: "cell"; cell: Cell } | { kind: "camera"; camera: string } | { kind: "plan" } | null;

export interface Stretches {
  selected: Cell | null;
  open: Open;
  select: (cell: Cell) => void;
  openCell: (cell: Cell) => void;
  openCamera: (camera: string) => void;
  openPlan: () => void;
  close: () => void;
  /** Go to a cell at a moment, on whichever day it is. */
  goTo: (cell: Cell, ms: number) => void;
}

/** Which cell of the board is selected, and which strip is open. */
export function useStretches(
  frame: RefObject<HTMLElement | null>,
  rehearsal: Rehearsal,
  hand: Hand,
  first: Cell | null,
): Stretches {
  const { pinned, point, move, now, day } = hand;
  const [selected, setSelected] = useState<Cell | null>(first);
  const [open, setOpen] = useState<Open>(null);
  const focus = useCallback(
    ({ item, camera }: Cell) =>
      frame.current?.querySelector<HTMLElement>(`[data-cell="${item}/${camera}"]`)?.focus(),
    [frame],
  );
  const goTo = useCallback(
    (cell: Cell, ms: number) => {
      move(ms);
      setSelected(cell);
      setOpen(null);
      requestAnimationFrame(() => focus(cell));
    },
    [focus, move],
  );
  const select = useCallback(
    (cell: Cell) => {
      setSelected(cell);
      const laid = rehearsal.items.find((one) => one.id === cell.item);
      const inside = laid !== undefined && now() >= laid.start_ms && now() < laid.end_ms;
      if (laid && !pinned && !inside) point(Math.max(laid.start_ms, day.startMs));
    },
    [rehearsal, pinned, now, point, day.startMs],
  );
  const openCell = useCallback((cell: Cell) => {
    setSelected(cell);
    setOpen({ kind: "cell", cell });
  }, []);
  const openCamera = useCallback((camera: string) => setOpen({ kind: "camera", camera }), []);
  const openPlan = useCallback(() => setOpen({ kind: "plan" }), []);
  const close = useCallback(() => {
    setOpen(null);
    if (open?.kind === "cell") focus(open.cell);
  }, [focus, open]);
  return { selected, open, select, openCell, openCamera, openPlan, close, goTo };
}
