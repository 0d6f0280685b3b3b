import { useMemo } from "react";
import { useCommands } from "../../app/commands";
import type { Cell } from "../../board/Drawing";
import type { DayWindow } from "../../domain/clock";
import { lossesInOrder } from "../../domain/moment";
import type { Loss, Rehearsal } from "../../domain/types";
import type { Fold } from "../../scale/elastic";

interface Wanted {
  rehearsal: Rehearsal;
  handAt: () => number;
  goTo: (cell: Cell, ms: number) => void;
  selected: Cell | null;
  openCures: (loss: Loss) => void;
  fold: Fold;
  setFold: (fold: Fold) => void;
  days: readonly DayWindow[];
  dayNumber: number;
  chooseDay: (number: number) => void;
}

/** The board's commands: gaps, folds, days. Letters work while the board is focused. */
export function useBoardCommands({
  rehearsal,
  handAt,
  goTo,
  selected,
  openCures,
  fold,
  setFold,
  days,
  dayNumber,
  chooseDay,
}: Wanted): void {
  const commands = useMemo(() => {
    const losses = lossesInOrder(rehearsal);
    const any = losses.length > 0;
    const here = losses.find(
      (loss) => loss.camera === selected?.camera && loss.item === selected.item,
    );
    const go = (pick: (at: number) => Loss | undefined) => () => {
      const loss = pick(handAt());
      if (loss) goTo({ camera: loss.camera, item: loss.item }, loss.start_ms);
    };
    const next = go((at) => losses.find((loss) => loss.start_ms > at) ?? losses[0]);
    const before = go((at) => losses.findLast((loss) => loss.start_ms < at) ?? losses.at(-1));
    return [
      { name: "Next gap", keys: "N", allowed: any, run: next },
      { name: "Gap before", keys: "P", allowed: any, run: before },
      {
        name: "Cures of the gap here",
        keys: "C",
        allowed: here !== undefined,
        run: () => {
          if (here) openCures(here);
        },
      },
      {
        name: fold === "day" ? "Fold to stops" : "Unfold to the day",
        keys: "F",
        allowed: true,
        run: () => setFold(fold === "day" ? "stops" : "day"),
      },
      {
        name: "Next day",
        keys: "]",
        allowed: dayNumber < days.length,
        run: () => chooseDay(dayNumber + 1),
      },
      {
        name: "Day before",
        keys: "[",
        allowed: dayNumber > 1,
        run: () => chooseDay(dayNumber - 1),
      },
    ];
  }, [rehearsal, handAt, goTo, selected, openCures, fold, setFold, days, dayNumber, chooseDay]);
  useCommands("board", commands);
}
