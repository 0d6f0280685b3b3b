import { useMemo } from "react";
import { useCommands } from "../../app/commands";
import type { Cell } from "../../board/Drawing";
import type { DayWindow } from "../../domain/clock";
import { lossesInOrder } from "../../domain/moment";
import type { Rehearsal } from "../../domain/types";
import type { Fold } from "../../scale/elastic";

interface Wanted {
  rehearsal: Rehearsal;
  handMs: number;
  goTo: (cell: Cell, ms: number) => void;
  fold: Fold;
  setFold: (fold: Fold) => void;
  days: readonly DayWindow[];
  dayNumber: number;
  chooseDay: (number: number) => void;
}

/** The board's commands: gaps, folds, days. Letters work while the board is focused. */
export function useBoardCommands({
  rehearsal,
  handMs,
  goTo,
  fold,
  setFold,
  days,
  dayNumber,
  chooseDay,
}: Wanted): void {
  const commands = useMemo(() => {
    const losses = lossesInOrder(rehearsal);
    const next = losses.find((loss) => loss.start_ms > handMs) ?? losses[0];
    const before = losses.findLast((loss) => loss.start_ms < handMs) ?? losses.at(-1);
    const go = (loss: typeof next) => () => {
      if (loss) goTo({ camera: loss.camera, item: loss.item }, loss.start_ms);
    };
    return [
      { name: "Next gap", keys: "N", allowed: next !== undefined, run: go(next) },
      { name: "Gap before", keys: "P", allowed: before !== undefined, run: go(before) },
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
  }, [rehearsal, handMs, goTo, fold, setFold, days, dayNumber, chooseDay]);
  useCommands("board", commands);
}
