import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import { useTripHere } from "../../app/TripContext";
import { type Cell, Drawing } from "../../board/Drawing";
import { Grid } from "../../board/Grid";
import { Heads } from "../../board/Heads";
import { workHeights } from "../../board/workLines";
import { type Clock, dayWindows } from "../../domain/clock";
import { lossesInOrder } from "../../domain/moment";
import type { PlanDocument, Rehearsal } from "../../domain/types";
import { elastic, type Fold } from "../../scale/elastic";
import { lanesOf } from "../../scale/lanes";
import { useWidth } from "../../ui/useWidth";
import { BottomLine } from "./BottomLine";
import { Carried } from "./Carried";
import { Controls } from "./Controls";
import { HandSlider } from "./HandSlider";
import { Legend } from "./Legend";
import { CameraStrip } from "./CameraStrip";
import { StretchStrip } from "./StretchStrip";
import { useBoardCommands } from "./useBoardCommands";
import { TroubleSide, VerdictSide } from "./VerdictSide";

interface Props {
  document: PlanDocument;
  rehearsal: Rehearsal;
  clock: Clock;
}

/** With more cameras than these the board takes the whole width and the side stands below. */
const SIDE_BESIDE = 5;

type Open = { kind: "cell"; cell: Cell } | { kind: "camera"; camera: string } | null;

/** Everything that is done on the board: looking, walking, opening a stretch. */
export function BoardWork({ document, rehearsal, clock }: Props) {
  const { kept, rehearsing } = useTripHere();
  const { kit, trip } = document;
  const firstLoss = useMemo(() => lossesInOrder(rehearsal)[0], [rehearsal]);
  const [fold, setFold] = useState<Fold>("day");
  const [handMs, setHand] = useState(firstLoss?.start_ms ?? 0);
  // the hand as of the last key, ahead of the drawing, so that quick keys each go one further
  const handNow = useRef(handMs);
  useEffect(() => {
    handNow.current = handMs;
  }, [handMs]);
  const handAt = useCallback(() => handNow.current, []);
  const [pinned, setPinned] = useState(false);
  const [selected, setSelected] = useState<Cell | null>(
    firstLoss ? { camera: firstLoss.camera, item: firstLoss.item } : null,
  );
  const [open, setOpen] = useState<Open>(null);
  const frame = useRef<HTMLDivElement>(null);
  const width = useWidth(frame, 980);

  const days = useMemo(() => dayWindows(trip, rehearsal, clock), [trip, rehearsal, clock]);
  const at = Math.min(Math.max(0, handMs), rehearsal.duration_ms);
  const [dayNumber, setDayNumber] = useState(
    () => (days.find((day) => at < day.endMs) ?? days.at(-1))?.number ?? 1,
  );
  const day = days.find((one) => one.number === dayNumber) ?? days[0];
  const startMs = fold === "stops" ? 0 : (day?.startMs ?? 0);
  const endMs = fold === "stops" ? rehearsal.duration_ms : (day?.endMs ?? rehearsal.duration_ms);
  const window = useMemo(() => ({ startMs, endMs }), [startMs, endMs]);
  const lanes = useMemo(() => lanesOf(width, kit.cameras.length), [width, kit.cameras.length]);
  const scale = useMemo(
    () => elastic(rehearsal.items, window, fold, workHeights(rehearsal.moves, kit.cameras)),
    [rehearsal, window, fold, kit.cameras],
  );

  const moveHand = useCallback(
    (ms: number) => {
      const kept = Math.min(Math.max(0, ms), rehearsal.duration_ms - 1);
      handNow.current = kept;
      setHand(kept);
      setDayNumber((days.find((one) => kept < one.endMs) ?? days.at(-1))?.number ?? 1);
    },
    [days, rehearsal.duration_ms],
  );
  const goTo = useCallback(
    (cell: Cell, ms: number) => {
      moveHand(ms);
      setSelected(cell);
      setOpen(null);
      requestAnimationFrame(() =>
        frame.current
          ?.querySelector<HTMLElement>(`[data-cell="${cell.item}/${cell.camera}"]`)
          ?.focus(),
      );
    },
    [moveHand],
  );
  const select = useCallback(
    (cell: Cell) => {
      setSelected(cell);
      const laid = rehearsal.items.find((one) => one.id === cell.item);
      if (laid && !pinned)
        setHand((old) =>
          old >= laid.start_ms && old < laid.end_ms ? old : Math.max(laid.start_ms, startMs),
        );
    },
    [rehearsal, pinned, startMs],
  );
  const openCell = useCallback((cell: Cell) => {
    setSelected(cell);
    setOpen({ kind: "cell", cell });
  }, []);
  const openCamera = useCallback((camera: string) => setOpen({ kind: "camera", camera }), []);
  const close = useCallback(() => {
    setOpen(null);
    if (open?.kind === "cell")
      frame.current
        ?.querySelector<HTMLElement>(`[data-cell="${open.cell.item}/${open.cell.camera}"]`)
        ?.focus();
  }, [open]);
  const chooseDay = useCallback(
    (number: number) => {
      const wanted = days.find((one) => one.number === number);
      if (wanted === undefined) return;
      setOpen(null);
      setFold("day");
      moveHand(wanted.startMs);
    },
    [days, moveHand],
  );
  useBoardCommands({ rehearsal, handAt, goTo, fold, setFold, days, dayNumber, chooseDay });

  const pointed = (event: React.PointerEvent) => {
    if (pinned || open !== null || event.pointerType === "touch") return;
    const top = event.currentTarget.getBoundingClientRect().top;
    setHand(Math.min(scale.ms(event.clientY - top), rehearsal.duration_ms - 1));
  };
  const pin = (event: React.MouseEvent<HTMLElement>) => {
    if (
      event.target instanceof Element &&
      event.target.closest("[role=gridcell],[role=dialog]") !== null
    )
      return;
    const top = event.currentTarget.getBoundingClientRect().top;
    setHand(Math.min(scale.ms(event.clientY - top), rehearsal.duration_ms - 1));
    setPinned((old) => !old);
  };

  const strip = { document, rehearsal, clock, kept };

  return (
    <main className={kit.cameras.length > SIDE_BESIDE ? "board-page board-wide" : "board-page"}>
      <VerdictSide rehearsal={rehearsal} late={rehearsing.late} error={rehearsing.error} />
      <TroubleSide
        document={document}
        rehearsal={rehearsal}
        clock={clock}
        goTo={goTo}
        openCamera={openCamera}
      />
      <section className="board-main" aria-label="Board" ref={frame}>
        <Controls
          days={days}
          dayNumber={dayNumber}
          clock={clock}
          fold={fold}
          policy={document.plan.swap_policy}
          onDay={chooseDay}
          onFold={setFold}
          onPolicy={(swap_policy) =>
            kept.edit((doc) => ({ ...doc, plan: { ...doc.plan, swap_policy } }))
          }
        />
        <div className="heads-sticky">
          <Heads
            document={document}
            rehearsal={rehearsal}
            lanes={lanes}
            handMs={at}
            onCamera={openCamera}
          >
            <HandSlider
              handMs={at}
              window={window}
              rehearsal={rehearsal}
              clock={clock}
              pinned={pinned}
              moveHand={moveHand}
              togglePin={() => setPinned((old) => !old)}
            />
          </Heads>
        </div>
        {/* the pointer only moves the hand; the grid inside carries every action for the keyboard */}
        <div
          className="board-field"
          data-board="field"
          style={{ height: scale.height + 2 }}
          onPointerMove={pointed}
          onClick={pin}
          role="presentation"
        >
          <Drawing
            document={document}
            rehearsal={rehearsal}
            clock={clock}
            scale={scale}
            lanes={lanes}
            window={window}
            handMs={at}
            selected={selected}
            compact={fold === "stops"}
          />
          <Grid
            document={document}
            rehearsal={rehearsal}
            clock={clock}
            scale={scale}
            lanes={lanes}
            selected={selected}
            onSelect={select}
            onOpen={openCell}
          />
          {open?.kind === "cell" ? (
            <StretchStrip {...strip} onClose={close} cell={open.cell} scale={scale} lanes={lanes} />
          ) : null}
          {open?.kind === "camera" ? (
            <CameraStrip {...strip} onClose={close} camera={open.camera} lanes={lanes} />
          ) : null}
        </div>
        <BottomLine
          document={document}
          selected={selected}
          pinned={pinned}
          open={open !== null}
          clock={clock}
          handMs={at}
        />
      </section>
      <aside className="board-rest" aria-label="What you carry">
        <Carried document={document} rehearsal={rehearsal} clock={clock} handMs={at} />
        <Legend />
      </aside>
    </main>
  );
}
