import { useMediaQuery } from "@mui/material";
import {
  lazy,
  Suspense,
  useCallback,
  useDeferredValue,
  useEffect,
  useMemo,
  useRef,
  useState,
} from "react";
import { tellServing } from "../../api/queries";
import { usePumped } from "../../api/usePumped";
import type { Shown } from "../../api/useRehearsal";
import { useTripHere } from "../../app/TripContext";
import { useCorrections } from "../../app/useCorrections";
import { Heads } from "../../board/Heads";
import type { Clock, DayWindow } from "../../domain/clock";
import { targetOfLoss } from "../../domain/cures";
import { beginsIn, lossesInOrder } from "../../domain/moment";
import type { CureTarget, Loss, PlanDocument, Rehearsal } from "../../domain/types";
import type { Fold } from "../../scale/elastic";
import { lanesOf } from "../../scale/lanes";
import { useHeight, useWidth } from "../../ui/useWidth";
import { BoardField } from "./BoardField";
import { BoardSide } from "./BoardSide";
import { Edge } from "./Edge";
import { BottomLine } from "./BottomLine";
import { NothingAsked } from "./NothingAsked";
import { HandSlider } from "./HandSlider";
import { TripStrip } from "./TripStrip";
import { Trying } from "./Trying";
import { useBestCures } from "./useBestCures";
import { useBoardCommands } from "./useBoardCommands";
import { useBoardScale } from "./useBoardScale";
import { type Hand, useHand } from "./useHand";
import { useSame } from "./useSame";
import { useSettled } from "./useSettled";
import { useStretches } from "./useStretches";
import type { Trials } from "./useTrial";
import { Verdict } from "./Verdict";
import { loadStopList } from "./loadLater";

const StopList = lazy(loadStopList);

interface Props extends Omit<Trials, "drawn"> {
  document: PlanDocument;
  rehearsal: Rehearsal;
  clock: Clock;
  /** What is kept: the side tells of it while a change is tried. */
  present: Shown;
}

/** Drawn with until the page has been measured. */
const FIRST_WIDTH = 980;
const FIRST_HEIGHT = 560;
const ADVICE_AFTER_MS = 450;
/** With more cameras than these the side folds to an edge, and lies over the board when opened. */
const SIDE_BESIDE = 6;

/** The time that the board shows: the day, or with the legs folded the whole trip. */
function useFolded(fold: Fold, day: DayWindow, durationMs: number) {
  const startMs = fold === "stops" ? 0 : day.startMs;
  const endMs = fold === "stops" ? durationMs : day.endMs;
  return useMemo(() => ({ startMs, endMs }), [startMs, endMs]);
}

/** Everything that is done on the board: looking, walking, opening a stretch. */
export function BoardWork(props: Props) {
  const { document, rehearsal, clock, curing, drafting, present, ghost } = props;
  const { kept, rehearsing } = useTripHere();
  const scroll = useRef<HTMLDivElement>(null);
  const field = useRef<HTMLDivElement>(null);
  const width = useWidth(scroll, Math.min(FIRST_WIDTH, globalThis.innerWidth));
  const room = useHeight(scroll, FIRST_HEIGHT);
  const [fold, setFold] = useState<Fold>("day");
  const [beside, setBeside] = useState(false);
  const narrow = useMediaQuery("(max-width: 819px)");
  const phone = useMediaQuery("(max-width: 639px)");
  const folds = !narrow && document.kit.cameras.length > SIDE_BESIDE;
  const first = useMemo(() => lossesInOrder(rehearsal)[0], [rehearsal]);
  const hand = useHand(document.trip, rehearsal, clock, first?.start_ms ?? 0);
  const board = useStretches(scroll, rehearsal, hand, first ?? null);
  const { day, days, move } = hand;
  const { close, goTo, openPlan } = board;
  const corrections = useCorrections();
  const window = useFolded(fold, day, rehearsal.duration_ms);
  const idle = useIdle(document, rehearsal, window);
  const lanes = useMemo(() => lanesOf(width, idle), [width, idle]);
  const shown = useBoardScale({
    scroll,
    field,
    rehearsal,
    kept: present.rehearsal,
    window,
    fold,
    room: room - 4,
    selected: board.selected,
  });
  const chooseDay = useCallback(
    (number: number) => {
      const wanted = days.find((one) => one.number === number);
      if (wanted === undefined) return;
      close();
      setFold("day");
      move(wanted.startMs);
      scroll.current?.scrollTo({ top: 0 });
    },
    [close, days, move],
  );
  const openCures = useOpenCures(curing.onOpen, setBeside);
  useBoardCommands({
    rehearsal,
    handAt: hand.now,
    goTo,
    selected: board.selected,
    document: present.document,
    clock,
    corrections,
    openCures,
    fold,
    setFold,
    days,
    dayNumber: day.number,
    chooseDay,
  });
  useShown(phone ? null : curing.open, rehearsal, hand);
  const losses = useMemo(
    () => lossesInOrder(present.rehearsal).filter((one) => beginsIn(one.start_ms, window)),
    [present.rehearsal, window],
  );
  const best = useBestCures(curing.document, losses);
  // asked when the edit has been rehearsed, drawn and saved
  const serving = usePumped(tellServing, useSettled(document, ADVICE_AFTER_MS)).result;
  const { later, carriedMs } = useLater(document, rehearsal, hand.at);
  return (
    <main className={folds ? "board-page folds" : "board-page"}>
      <header className="board-top">
        <TripStrip
          {...{ document, rehearsal, clock, days, fold }}
          dayNumber={day.number}
          onDay={chooseDay}
          onFold={setFold}
        />
        <Verdict rehearsal={rehearsal} late={rehearsing.late} error={rehearsing.error} />
      </header>
      <section className="board-main" aria-label="Board">
        <NothingAsked />
        <Trying curing={curing} problem={corrections.error} />
        {phone ? (
          <div className="phone-hand label">
            <HandSlider hand={hand} window={window} rehearsal={rehearsal} clock={clock} />
            {document.kit.cameras.map((one) => (
              <button
                key={one.id}
                type="button"
                className="plain link"
                onClick={() => board.openCamera(one.id)}
              >
                {one.name}
              </button>
            ))}
          </div>
        ) : (
          <Heads
            {...{ document, rehearsal, clock, lanes }}
            handMs={hand.at}
            onCamera={board.openCamera}
          >
            <HandSlider hand={hand} window={window} rehearsal={rehearsal} clock={clock} />
          </Heads>
        )}
        <div className="board-scroll" ref={scroll}>
          {phone ? (
            <Suspense fallback={null}>
              <StopList
                {...{ document, rehearsal, clock, hand, board, best, curing, ghost }}
                bands={shown.scale.bands}
              />
            </Suspense>
          ) : null}
          <BoardField
            phone={phone}
            {...{ field, document, rehearsal, clock, present, kept, hand, board, lanes, shown }}
            {...{ corrections, serving, best, curing, drafting, ghost }}
          />
        </div>
      </section>
      {folds ? (
        <Edge open={beside} rehearsal={rehearsal} onToggle={() => setBeside(!beside)} />
      ) : null}
      {folds && !beside ? null : (
        <BoardSide
          {...{ later, present, clock, curing, serving, best, goTo, openPlan }}
          openCamera={board.openCamera}
          handMs={carriedMs}
        />
      )}
      <BottomLine
        document={document}
        selected={board.selected}
        many={board.many.length}
        drafting={drafting.pending}
        pinned={hand.pinned}
        open={board.open !== null}
        clock={clock}
        handMs={hand.at}
      />
    </main>
  );
}

/**
 * What cures are sought for is brought into sight, on whichever day it is; the focus stays. Not on
 * a phone: its one column would take the cures away from under the finger.
 */
function useShown(target: CureTarget | null, rehearsal: Rehearsal, hand: Hand): void {
  const { day, move } = hand;
  const laid = rehearsal.items.find((one) => one.id === target?.item);
  const mark = target === null ? "" : `${target.item ?? ""}/${target.camera ?? ""}`;
  const startMs = laid?.start_ms;
  const elsewhere = startMs !== undefined && (startMs < day.startMs || startMs >= day.endMs);
  useEffect(() => {
    if (mark === "" || startMs === undefined) return;
    if (elsewhere) move(startMs);
    const frame = requestAnimationFrame(() =>
      document.querySelector(`[data-cell="${mark}"]`)?.scrollIntoView({ block: "center" }),
    );
    return () => cancelAnimationFrame(frame);
  }, [mark, startMs, elsewhere, move]);
}

/** Opens the cures of a gap at the side, which unfolds for them, and takes the focus there. */
function useOpenCures(
  onOpen: (target: CureTarget) => void,
  setBeside: (open: boolean) => void,
): (loss: Loss) => void {
  return useCallback(
    (loss: Loss) => {
      setBeside(true);
      onOpen(targetOfLoss(loss));
      requestAnimationFrame(focusOpenCures);
    },
    [onOpen, setBeside],
  );
}

/** What the side tells of follows the board and its hand a moment later. */
function useLater(document: PlanDocument, rehearsal: Rehearsal, handMs: number) {
  const told = useMemo(() => ({ document, rehearsal }), [document, rehearsal]);
  return { later: useDeferredValue(told), carriedMs: useDeferredValue(handMs) };
}

function focusOpenCures() {
  document.querySelector<HTMLElement>(".cures-open[aria-expanded=true]")?.focus();
}

const whole = (idle: readonly boolean[]) => idle;

/** For each camera whether nothing is asked of it in what is shown; the same list while it is. */
function useIdle(
  { kit, plan }: PlanDocument,
  rehearsal: Rehearsal,
  window: { startMs: number; endMs: number },
): readonly boolean[] {
  const idle = useMemo(() => {
    const inside = new Set(
      rehearsal.items
        .filter((one) => one.end_ms > window.startMs && one.start_ms < window.endMs)
        .map((one) => one.id),
    );
    return kit.cameras.map(
      ({ id }) => !plan.assignments.some((one) => one.camera === id && inside.has(one.item)),
    );
  }, [kit, plan, rehearsal.items, window]);
  return useSame(idle, whole);
}
