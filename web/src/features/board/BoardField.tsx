import {
  lazy,
  type MouseEvent,
  type PointerEvent,
  type RefObject,
  Suspense,
  useCallback,
  useDeferredValue,
  useMemo,
  useRef,
} from "react";
import { Drawing } from "../../board/Drawing";
import { gapLines } from "../../board/gapLines";
import { Grid } from "../../board/Grid";
import type { Clock } from "../../domain/clock";
import type { Gap } from "../../domain/gaps";
import type { PlanDocument, Rehearsal, ServingTold } from "../../domain/types";
import type { Lanes } from "../../scale/lanes";
import type { Corrections } from "../../app/useCorrections";
import type { KeptTrip } from "../../api/keptTrip";
import type { Shown } from "../../api/useRehearsal";
import { GapsTold } from "./GapsTold";
import { Grips } from "./Grips";
import { loadCameraStrip, loadPlanStrip } from "./loadLater";
import { StretchStrip } from "./StretchStrip";
import type { BestCure } from "./useBestCures";
import type { BoardScale } from "./useBoardScale";
import type { Hand } from "./useHand";
import type { Stretches } from "./useStretches";
import type { Trials } from "./useTrial";

const CameraStrip = lazy(loadCameraStrip);
const PlanStrip = lazy(loadPlanStrip);

interface Props extends Pick<Trials, "curing" | "drafting" | "ghost"> {
  /** On a phone only the strips that rise from the lower edge: the list of stops is the board. */
  phone: boolean;
  field: RefObject<HTMLDivElement | null>;
  document: PlanDocument;
  rehearsal: Rehearsal;
  clock: Clock;
  present: Shown;
  kept: KeptTrip;
  hand: Hand;
  board: Stretches;
  lanes: Lanes;
  shown: BoardScale;
  corrections: Corrections;
  serving: ServingTold | null;
  best: ReadonlyMap<string, BestCure>;
}

/** The picture itself, with the grid of words over it, what can be pulled, and the strip that is open. */
export function BoardField(props: Props) {
  const { field, document, rehearsal, clock, hand, board, lanes, shown, ghost } = props;
  const { curing, drafting, present, best } = props;
  const { scale, seen, window } = shown;
  const picture = useMemo(
    () => ({ document, rehearsal, clock, scale: seen, lanes }),
    [document, rehearsal, clock, seen, lanes],
  );
  const lines = useMemo(() => gapLines(rehearsal, seen), [rehearsal, seen]);
  // the drawing first; words for screen readers follow a moment later
  const later = useDeferredValue(picture);
  const { open, many, selected, goTo } = board;
  const chosen = useMemo(
    () => (many.length > 0 ? many : selected ? [selected] : []),
    [many, selected],
  );
  const anyone = document.kit.cameras[0]?.id ?? "";
  const goToGap = useCallback(
    (gap: Gap) => goTo({ camera: gap.camera ?? anyone, item: gap.item }, gap.startMs),
    [goTo, anyone],
  );
  const pointed = useRef(0);
  const msUnder = (event: MouseEvent<HTMLElement>) =>
    scale.ms(event.clientY - event.currentTarget.getBoundingClientRect().top);
  const point = (event: PointerEvent<HTMLElement>) => {
    if (hand.pinned || open !== null || event.pointerType === "touch") return;
    if (event.clientY === pointed.current) return;
    pointed.current = event.clientY;
    hand.point(msUnder(event));
  };
  const pin = (event: MouseEvent<HTMLElement>) => {
    const at = event.target instanceof Element ? event.target : null;
    if (at?.closest("[role=gridcell],[role=dialog],[role=rowheader],.grip,.gap-told") != null)
      return;
    hand.point(msUnder(event));
    hand.togglePin();
  };
  if (props.phone)
    return (
      <div ref={field} data-board="field">
        {open === null ? null : <OpenStrip {...props} picture={picture} present={present} />}
      </div>
    );
  const unplayed = rehearsal.findings.some((one) => one.code === "figure_mistaken");
  return (
    // the pointer only moves the hand; the grid inside carries every action for the keyboard
    <div
      className={unplayed ? "board-field unplayed" : "board-field"}
      ref={field}
      data-board="field"
      data-px-per-min={scale.pxPerMin}
      style={{ height: scale.height + 2 }}
      onPointerMove={point}
      onClick={pin}
      role="presentation"
    >
      <Drawing {...picture} window={window} handMs={hand.at} selected={chosen} ghost={ghost} />
      <GapsTold
        document={document}
        clock={clock}
        lines={lines}
        lanes={lanes}
        best={best}
        curing={curing}
        goTo={goToGap}
      />
      <Grid
        {...later}
        rows={scale.bands}
        selected={selected}
        many={many}
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
          selected={selected}
        />
      ) : (
        <OpenStrip {...props} picture={picture} present={present} />
      )}
    </div>
  );
}

type Picture = Pick<Props, "document" | "rehearsal" | "clock" | "lanes"> & {
  scale: BoardScale["seen"];
};

/** Whatever is open over the telling: one stretch or several, a camera, the whole trip. */
function OpenStrip(props: Props & { picture: Picture }) {
  const { board, picture, present, drafting, corrections, hand, serving, kept } = props;
  const { open, close } = board;
  return (
    <Suspense fallback={null}>
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
    </Suspense>
  );
}
