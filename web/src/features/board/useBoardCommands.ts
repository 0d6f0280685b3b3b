import { useMemo } from "react";
import { type Command, useCommands } from "../../app/commands";
import type { Corrections } from "../../app/useCorrections";
import type { Cell } from "../../board/Drawing";
import type { Clock, DayWindow } from "../../domain/clock";
import { lossesInOrder } from "../../domain/moment";
import { movable } from "../../domain/handEdits";
import { type Problem, problemsOf } from "../../domain/problems";
import { canPart, partedAfter } from "../../domain/routeEdits";
import type { Loss, PlanDocument, Rehearsal } from "../../domain/types";
import type { Fold } from "../../scale/elastic";
import { cellHere, focusEnd, focusMove, focusTime } from "./gripFocus";

interface Wanted {
  document: PlanDocument;
  rehearsal: Rehearsal;
  clock: Clock;
  handAt: () => number;
  goTo: (cell: Cell, ms: number) => void;
  selected: Cell | null;
  corrections: Corrections;
  openCures: (loss: Loss) => void;
  fold: Fold;
  setFold: (fold: Fold) => void;
  days: readonly DayWindow[];
  dayNumber: number;
  chooseDay: (number: number) => void;
}

/** The board's commands: problems, folds, days, and what the hand and the grips do. */
export function useBoardCommands(wanted: Wanted): void {
  const looking = useLooking(wanted);
  const pulling = usePulling(wanted);
  useCommands(
    "board",
    useMemo(() => [...looking, ...pulling], [looking, pulling]),
  );
}

function useLooking(wanted: Wanted) {
  const { rehearsal, handAt, goTo, selected, openCures, fold, setFold } = wanted;
  const { days, dayNumber, chooseDay } = wanted;
  return useMemo(() => {
    const problems = problemsOf(rehearsal);
    const any = problems.length > 0;
    const losses = lossesInOrder(rehearsal);
    const lossHere = () => {
      const here = cellHere(selected);
      const mine = losses.find((one) => one.camera === here?.camera && one.item === here.item);
      return mine ?? losses.find((one) => one.end_ms > handAt()) ?? losses[0];
    };
    const isHere = (one: Problem) =>
      one.cell.camera === selected?.camera && one.cell.item === selected.item;
    const go = (by: 1 | -1) => () => {
      const here = problems.findLastIndex((one) => isHere(one) && one.ms <= handAt());
      const at = handAt();
      const next =
        here >= 0
          ? problems[(here + by + problems.length) % problems.length]
          : by > 0
            ? (problems.find((one) => one.ms > at) ?? problems[0])
            : (problems.findLast((one) => one.ms < at) ?? problems.at(-1));
      if (next) goTo(next.cell, next.ms);
    };
    const commands: Omit<Command, "anywhere">[] = [
      { name: "Next gap or finding", keys: "N", allowed: any, run: go(1) },
      { name: "Gap or finding before", keys: "P", allowed: any, run: go(-1) },
      {
        name: "Cures of the gap here, or of the next",
        keys: "C",
        allowed: losses.length > 0,
        run: () => {
          const loss = lossHere();
          if (loss) openCures(loss);
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
    return commands.map((one) => ({ ...one, anywhere: true }));
  }, [rehearsal, handAt, goTo, selected, openCures, fold, setFold, days, dayNumber, chooseDay]);
}

function usePulling({ document, rehearsal, clock, handAt, selected, corrections }: Wanted) {
  return useMemo(() => {
    const place = document.trip.items.findIndex((one) => one.id === selected?.item);
    const item = document.trip.items[place];
    const moves = rehearsal.moves.some((one) => movable(one) !== null);
    const onLeg = item?.kind === "leg";
    const laid = rehearsal.items.find((one) => one.id === item?.id);
    const startMs = laid?.start_ms ?? 0;
    const after_s = () => (onLeg ? partedAfter(item, startMs, handAt()) : 0);
    const long = onLeg && canPart(item);
    const id = item?.id ?? "";
    return [
      {
        name: "Move the hands’ work here to another stop",
        keys: "M",
        allowed: moves,
        run: () => focusMove(selected),
      },
      {
        name: "Pull the stretch’s end",
        keys: "E",
        allowed: selected !== null,
        run: () => focusEnd(selected, "last"),
      },
      {
        name: "Pull the stretch’s start",
        keys: "B",
        allowed: selected !== null,
        run: () => focusEnd(selected, "first"),
      },
      {
        name: "How long it takes",
        keys: "L",
        allowed: item !== undefined,
        run: () => focusTime(selected),
      },
      {
        name: "Split the leg at the hand",
        keys: "S",
        allowed: long,
        run: () => corrections.correct({ kind: "cut", item: id, after_s: after_s() }),
      },
      {
        name: "A halt at the hand",
        keys: "H",
        allowed: long,
        run: () =>
          corrections.correct({
            kind: "halt",
            item: id,
            after_s: after_s(),
            name: `Halt ${clock.time(startMs + after_s() * 1000)}`,
            duration_s: 900,
          }),
      },
      {
        name: "Join the leg with the next",
        keys: "J",
        allowed: onLeg && document.trip.items.slice(place + 1).some((one) => one.kind === "leg"),
        run: () => corrections.correct({ kind: "merge", item: id }),
      },
    ];
  }, [document, rehearsal, clock, handAt, selected, corrections]);
}
