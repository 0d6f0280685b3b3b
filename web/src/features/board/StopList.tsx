import { useMemo, useState } from "react";
import { stopWork, worded } from "../../board/workLines";
import type { Clock } from "../../domain/clock";
import { type Gap, gapName, gapsByItem, gapsIn } from "../../domain/gaps";
import { cellSentence } from "../../domain/sentences";
import type { Camera, PlanDocument, Rehearsal } from "../../domain/types";
import { degreesText } from "../../domain/units";
import type { Band } from "../../scale/elastic";
import type { Curing } from "./Cures";
import { DeadTold } from "./DeadTold";
import { GapTold } from "./GapsTold";
import { LegRope } from "./LegRope";
import { type BestCure, gapKey } from "./useBestCures";
import type { Hand } from "./useHand";
import type { Stretches } from "./useStretches";
import "./stops.css";

interface Props {
  document: PlanDocument;
  rehearsal: Rehearsal;
  clock: Clock;
  hand: Hand;
  board: Stretches;
  bands: readonly Band[];
  best: ReadonlyMap<string, BestCure>;
  curing: Curing;
  ghost: Rehearsal | null;
}

/** The board on a phone: stops with the hands' work in words, legs with one camera's rope. */
export function StopList(props: Props) {
  const { document, rehearsal, hand, bands } = props;
  const { cameras } = document.kit;
  const [chosen, setChosen] = useState<string | null>(null);
  const gaps = useMemo(() => gapsByItem(rehearsal), [rehearsal]);
  const now = bands.findIndex((band) => hand.at < band.endMs);
  const next = bands.findIndex((band, place) => place >= now && band.kind === "stop");
  return (
    <div
      role="grid"
      aria-label="Board: legs and stops by camera"
      aria-colcount={cameras.length + 1}
      className="stop-list"
      data-board="grid"
    >
      {bands.map((band, place) => {
        const here = gapsIn(gaps, band);
        return band.kind === "leg" ? (
          <Leg
            key={band.id}
            {...props}
            band={band}
            camera={cameraOn(document, band.id, chosen, gaps.get(band.id)?.[0]?.camera)}
            gaps={here}
            onCamera={setChosen}
          />
        ) : (
          <StopRow
            key={band.id + String(band.startMs)}
            {...props}
            band={band}
            gaps={here}
            now={place === next}
          />
        );
      })}
    </div>
  );
}

/** Whose rope a leg shows: the one chosen, else one that loses something there, else one asked. */
function cameraOn(
  { kit, plan }: PlanDocument,
  item: string,
  chosen: string | null,
  loses: string | null | undefined,
): Camera | undefined {
  const asked = plan.assignments.find((one) => one.item === item)?.camera;
  return kit.cameras.find((one) => one.id === (chosen ?? loses ?? asked)) ?? kit.cameras[0];
}

/** A stop: when it is, and each thing to do in a row of its own; the one now or next is large. */
function StopRow(props: Props & { band: Band; gaps: readonly Gap[]; now: boolean }) {
  const { document, rehearsal, clock, band, gaps, now } = props;
  const work = stopWork(rehearsal.moves, band);
  return (
    <section role="row" className={now ? "stop-row now" : "stop-row"} aria-label={band.name}>
      <h2 role="rowheader">
        {band.kind === "wait" ? `wait until ${clock.time(band.wholeMs.end)}` : band.name}{" "}
        <small>
          {clock.time(band.wholeMs.start)}–{clock.time(band.wholeMs.end)}
        </small>
      </h2>
      <div role="gridcell">
        <ol className="stop-moves">
          {work.lines.map((line, row) => {
            const { who, what } = worded(line, document.kit.cameras);
            return (
              <li key={line.number} className={row === work.leaving ? "leaving" : ""}>
                <span className="stop-number">{line.number}</span>
                <time>{clock.time(line.atMs)}</time>
                <span>
                  <b>{who}</b> {what}
                </span>
              </li>
            );
          })}
        </ol>
      </div>
      <Told {...props} gaps={gaps} />
    </section>
  );
}

interface LegProps extends Props {
  band: Band;
  camera: Camera | undefined;
  gaps: readonly Gap[];
  onCamera: (camera: string) => void;
}

/** A leg: one camera's rope, buttons for the others, and what goes wrong with its cure. */
function Leg(props: LegProps) {
  const { document, rehearsal, clock, band, camera, gaps, onCamera, board } = props;
  const item = document.trip.items.find((one) => one.id === band.id);
  const laid = rehearsal.items.find((one) => one.id === band.id);
  if (camera === undefined || item === undefined || laid === undefined) return null;
  // the rope that is edited stays in sight above the editor
  const open = (id: string) => {
    onCamera(id);
    board.openCells([{ camera: id, item: band.id }]);
    requestAnimationFrame(() =>
      globalThis.document
        .querySelector(`[data-cell="${band.id}/${id}"]`)
        ?.closest(".leg-row")
        ?.scrollIntoView({ block: "start" }),
    );
  };
  const asked = (id: string) =>
    document.plan.assignments.some((one) => one.camera === id && one.item === band.id);
  return (
    <section role="row" className="leg-row" aria-label={band.name}>
      <h2 role="rowheader">
        {band.name}{" "}
        <small>
          {clock.time(band.wholeMs.start)}–{clock.time(band.wholeMs.end)} ·{" "}
          {degreesText(item.temp_start_c)} · hands {laid.hands_free ? "free" : "not free"}
        </small>
      </h2>
      <div className="leg-body">
        <div className="leg-rope" onClick={() => open(camera.id)} role="presentation">
          <LegRope {...props} camera={camera} />
        </div>
        <div className="leg-cameras" role="presentation">
          {document.kit.cameras.map((one) => (
            <div
              key={one.id}
              role="gridcell"
              tabIndex={0}
              data-cell={`${band.id}/${one.id}`}
              aria-label={cellSentence(document, rehearsal, clock, one, laid)}
              aria-selected={one.id === camera.id}
              className={asked(one.id) ? "" : "off"}
              onClick={() => open(one.id)}
              onKeyDown={(event) => {
                if (event.key === "Enter") open(one.id);
              }}
            >
              {one.name}
            </div>
          ))}
        </div>
      </div>
      <Told {...props} gaps={gaps} />
    </section>
  );
}

/** What goes wrong, in words, and the best cure of each; they lead to their place. */
function Told({ gaps, board, best, ...props }: Props & { gaps: readonly Gap[] }) {
  const { document, clock, curing } = props;
  const anyone = document.kit.cameras[0]?.id ?? "";
  return gaps.map((gap) => {
    const goTo = () => board.goTo({ camera: gap.camera ?? anyone, item: gap.item }, gap.startMs);
    const known = gap.kind === "film" ? best.get(gapKey(gap.loss)) : undefined;
    return (
      <div role="gridcell" key={gapName(gap)}>
        {gap.kind === "film" ? (
          <GapTold {...{ document, clock, curing, goTo, known }} loss={gap.loss} />
        ) : (
          <DeadTold {...{ document, clock, goTo }} dead={gap.dead} />
        )}
      </div>
    );
  });
}
