import {
  type MouseEvent,
  type PointerEvent,
  useCallback,
  useDeferredValue,
  useMemo,
  useRef,
  useState,
} from "react";
import { tellServing } from "../../api/queries";
import { usePumped } from "../../api/usePumped";
import { Button } from "@mui/material";
import type { Shown } from "../../api/useRehearsal";
import { useTripHere } from "../../app/TripContext";
import { useCorrections } from "../../app/useCorrections";
import { Drawing } from "../../board/Drawing";
import { Grid } from "../../board/Grid";
import { Heads } from "../../board/Heads";
import { workHeights } from "../../board/workLines";
import type { Clock } from "../../domain/clock";
import { lossesInOrder } from "../../domain/moment";
import { cureFigures, targetOfLoss } from "../../domain/cures";
import type { Cure, Loss, PlanDocument, Rehearsal } from "../../domain/types";
import { type Elastic, elastic, type Fold } from "../../scale/elastic";
import { lanesOf } from "../../scale/lanes";
import { useWidth } from "../../ui/useWidth";
import { Angles } from "./Angles";
import { BottomLine } from "./BottomLine";
import { CameraStrip } from "./CameraStrip";
import { Carried } from "./Carried";
import { Controls } from "./Controls";
import type { Curing } from "./Cures";
import { Grips } from "./Grips";
import { Edge } from "./Edge";
import { HandSlider } from "./HandSlider";
import { Legend } from "./Legend";
import { Margins } from "./Margins";
import { PlanStrip } from "./PlanStrip";
import { StretchStrip } from "./StretchStrip";
import { useBoardCommands } from "./useBoardCommands";
import { useHand } from "./useHand";
import { useSame } from "./useSame";
import { useSeen, windowOf } from "./useSeen";
import { useSettled } from "./useSettled";
import { useStretches } from "./useStretches";
import type { Trials } from "./useTrial";
import { TroubleSide, VerdictSide } from "./VerdictSide";

interface Props extends Omit<Trials, "drawn"> {
  document: PlanDocument;
  rehearsal: Rehearsal;
  clock: Clock;
  /** What is kept: the side tells of it while a change is tried. */
  present: Shown;
}

/** With more cameras than these the side folds to an edge, and lies over the board when opened. */
const SIDE_BESIDE = 5;
/** Drawn with until the page has been measured. */
const FIRST_WIDTH = 980;

const ADVICE_AFTER_MS = 450;

const bandsOf = (scale: Elastic) => scale.bands;

/** Everything that is done on the board: looking, walking, opening a stretch. */
export function BoardWork(props: Props) {
  const { document, rehearsal, clock, curing, drafting, present, ghost } = props;
  const { kept, rehearsing } = useTripHere();
  const { kit, plan } = document;
  const frame = useRef<HTMLDivElement>(null);
  const width = useWidth(frame, Math.min(FIRST_WIDTH, globalThis.innerWidth));
  const [fold, setFold] = useState<Fold>("day");
  const first = useMemo(() => lossesInOrder(rehearsal)[0], [rehearsal]);
  const hand = useHand(document.trip, rehearsal, clock, first?.start_ms ?? 0);
  const board = useStretches(frame, rehearsal, hand, first ?? null);
  const { day, days, move } = hand;
  const { open, close, goTo } = board;
  const corrections = useCorrections();

  const wide = kit.cameras.length > SIDE_BESIDE;
  const [beside, setBeside] = useState(false);
  const startMs = fold === "stops" ? 0 : day.startMs;
  const endMs = fold === "stops" ? rehearsal.duration_ms : day.endMs;
  const window = useMemo(() => ({ startMs, endMs }), [startMs, endMs]);
  const lanes = useMemo(() => lanesOf(width, kit.cameras.length), [width, kit.cameras.length]);
  const { items, moves } = rehearsal;
  const oneColumn = lanes.hands !== null;
  const scale = useSame(
    useMemo(
      () => elastic(items, window, fold, workHeights(moves, kit.cameras, oneColumn)),
      [items, moves, window, fold, kit.cameras, oneColumn],
    ),
    bandsOf,
  );
  const chooseDay = useCallback(
    (number: number) => {
      const wanted = days.find((one) => one.number === number);
      if (wanted === undefined) return;
      close();
      setFold("day");
      move(wanted.startMs);
    },
    [close, days, move],
  );
  const { onOpen } = curing;
  const openCures = useCallback(
    (loss: Loss) => {
      onOpen(targetOfLoss(loss));
      requestAnimationFrame(() =>
        globalThis.document.querySelector<HTMLElement>(".cures-open[aria-expanded=true]")?.focus(),
      );
    },
    [onOpen],
  );
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

  const msUnder = (event: MouseEvent<HTMLElement>) =>
    scale.ms(event.clientY - event.currentTarget.getBoundingClientRect().top);
  const pointed = (event: PointerEvent<HTMLElement>) => {
    if (!hand.pinned && open === null && event.pointerType !== "touch") hand.point(msUnder(event));
  };
  const pin = (event: MouseEvent<HTMLElement>) => {
    const at = event.target instanceof Element ? event.target : null;
    if (at?.closest("[role=gridcell],[role=dialog],[role=rowheader],.grip") != null) return;
    hand.point(msUnder(event));
    hand.togglePin();
  };

  const chosen = useMemo(
    () => (board.many.length > 0 ? board.many : board.selected ? [board.selected] : []),
    [board.many, board.selected],
  );
  const field = useRef<HTMLDivElement>(null);
  const always = board.selected?.item ?? null;
  const seen = useSeen(field, scale, always);
  const seenWindow = useMemo(
    () => (seen === scale ? window : windowOf(seen, window, always)),
    [seen, scale, window, always],
  );
  const picture = useMemo(
    () => ({ document, rehearsal, clock, scale: seen, lanes }),
    [document, rehearsal, clock, seen, lanes],
  );
  // asked when the edit has been rehearsed, drawn and saved
  const serving = usePumped(tellServing, useSettled(document, ADVICE_AFTER_MS)).result;
  // the drawing first; words for screen readers and what is carried follow a moment later
  const later = useDeferredValue(picture);
  const trouble = (
    <TroubleSide
      document={present.document}
      rehearsal={present.rehearsal}
      clock={clock}
      goTo={goTo}
      openCamera={board.openCamera}
      openPlan={board.openPlan}
      curing={curing}
    />
  );
  const rest = (
    <aside className="board-rest" aria-label="What you carry">
      <Carried {...later} handMs={hand.at} />
      <Margins document={later.document} rehearsal={later.rehearsal} />
      <Angles {...later} serving={serving} goTo={goTo} />
      <Legend />
    </aside>
  );
  return (
    <main className={wide ? "board-page board-wide" : "board-page"}>
      <VerdictSide rehearsal={rehearsal} late={rehearsing.late} error={rehearsing.error} />
      {wide ? (
        <>
          <Edge open={beside} rehearsal={rehearsal} onToggle={() => setBeside(!beside)} />
          <div className={beside ? "board-beside" : "board-beside folded"}>
            {trouble}
            {rest}
          </div>
        </>
      ) : (
        trouble
      )}
      <section className="board-main" aria-label="Board" ref={frame}>
        {curing.error === null ? null : <p role="alert">{curing.error}</p>}
        {corrections.error === null ? null : <p role="alert">{corrections.error}</p>}
        {curing.tried === null ? null : <Trying cure={curing.tried} {...curing} />}
        <Controls
          days={days}
          dayNumber={day.number}
          clock={clock}
          fold={fold}
          policy={plan.swap_policy}
          onDay={chooseDay}
          onFold={setFold}
          onPolicy={(swap_policy) =>
            kept.edit((doc) => ({ ...doc, plan: { ...doc.plan, swap_policy } }))
          }
          onWhole={board.openPlan}
        />
        <div className="heads-sticky">
          <Heads
            document={document}
            rehearsal={rehearsal}
            lanes={lanes}
            handMs={hand.at}
            onCamera={board.openCamera}
          >
            <HandSlider hand={hand} window={window} rehearsal={rehearsal} clock={clock} />
          </Heads>
        </div>
        {/* the pointer only moves the hand; the grid inside carries every action for the keyboard */}
        <div
          className={isUnplayed(rehearsal) ? "board-field unplayed" : "board-field"}
          ref={field}
          data-board="field"
          style={{ height: scale.height + 2 }}
          onPointerMove={pointed}
          onClick={pin}
          role="presentation"
        >
          <Drawing
            {...picture}
            window={seenWindow}
            handMs={hand.at}
            selected={chosen}
            compact={fold === "stops"}
            ghost={ghost}
          />
          <Grid
            {...later}
            rows={scale.bands}
            selected={board.selected}
            many={board.many}
            onSelect={board.select}
            onSelectMany={board.selectMany}
            onOpen={board.openCell}
            onOpenMany={board.openCells}
          />
          {open === null ? (
            <Grips
              {...picture}
              present={drafting.base}
              drafting={drafting}
              hand={hand}
              selected={board.selected}
            />
          ) : null}
          {open?.kind === "cells" ? (
            <StretchStrip
              key={open.cells.map((one) => `${one.item}/${one.camera}`).join(" ")}
              {...picture}
              document={present.document}
              rehearsal={present.rehearsal}
              onClose={close}
              cells={open.cells}
              drafting={drafting}
              corrections={corrections}
              handMs={hand.at}
              served={serving?.legs.find((one) => one.item === open.cells[0]?.item)}
            />
          ) : null}
          {open?.kind === "camera" ? (
            <CameraStrip {...picture} kept={kept} onClose={close} camera={open.camera} />
          ) : null}
          {open?.kind === "plan" ? <PlanStrip {...picture} kept={kept} onClose={close} /> : null}
        </div>
        <BottomLine
          document={document}
          selected={board.selected}
          many={board.many.length}
          drafting={drafting.pending}
          pinned={hand.pinned}
          open={open !== null}
          clock={clock}
          handMs={hand.at}
        />
      </section>
      {wide ? null : rest}
    </main>
  );
}

/** The board shows a cure that is not kept yet. */
function Trying({ cure, headline, onTry, onKeep }: Curing & { cure: Cure }) {
  return (
    <div className="trying" role="status">
      <span>
        <b>Tried, not kept:</b> {cure.text}{" "}
        <span className="label cure-figures">{cureFigures(cure)}</span> With it: {headline}
      </span>
      <span className="row">
        <Button size="small" variant="contained" onClick={() => onKeep(cure)}>
          Keep it
        </Button>
        <Button size="small" onClick={() => onTry(null)}>
          Leave it
        </Button>
      </span>
    </div>
  );
}

/** Nothing was played: a figure of the kit is to be mended first. */
function isUnplayed({ findings }: Rehearsal): boolean {
  return findings.some((one) => one.code === "figure_mistaken");
}
