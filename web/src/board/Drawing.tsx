import { memo } from "react";
import type { Clock } from "../domain/clock";
import { dyingWith } from "../domain/gaps";
import type { PlanDocument, Pooled, Rehearsal } from "../domain/types";
import type { Elastic } from "../scale/elastic";
import type { Lanes } from "../scale/lanes";
import { Ghost } from "./Ghost";
import { Lane } from "./Lane";
import { Leads } from "./Leads";
import { Rails } from "./Rails";
import { Textures } from "./Textures";
import { Telling } from "./Telling";

export interface Cell {
  camera: string;
  item: string;
}

interface SceneProps {
  document: PlanDocument;
  rehearsal: Rehearsal;
  clock: Clock;
  scale: Elastic;
  lanes: Lanes;
  window: { startMs: number; endMs: number };
}

interface DrawingProps extends SceneProps {
  handMs: number;
  /** What is chosen: one cell, or several. */
  selected: readonly Cell[];
  /** A change that is tried, over the same times. */
  ghost: Rehearsal | null;
}

/** The whole board as a picture. What it shows is said in words by the grid above it. */
export function Drawing({ handMs, selected, ghost, ...scene }: DrawingProps) {
  const { document, clock, scale, lanes, window } = scene;
  return (
    <svg
      width={lanes.width}
      height={scale.height + 2}
      aria-hidden="true"
      style={{ display: "block" }}
    >
      <Scene {...scene} />
      {ghost === null ? null : <Ghosts {...scene} ghost={ghost} />}
      {selected.map((cell) => (
        <Chosen
          key={`${cell.item}/${cell.camera}`}
          document={document}
          scale={scale}
          lanes={lanes}
          cell={cell}
        />
      ))}
      <HandLine clock={clock} scale={scale} lanes={lanes} handMs={handMs} window={window} />
    </svg>
  );
}

/** All that stands still while the hand moves. */
const Scene = memo(function Scene(props: SceneProps) {
  const { document, rehearsal, clock, scale, lanes, window } = props;
  const { kit, plan, trip } = document;
  return (
    <g>
      <Textures />
      <Rails
        items={trip.items}
        rehearsal={rehearsal}
        clock={clock}
        scale={scale}
        lanes={lanes}
        window={window}
      />
      {kit.cameras.map((camera, place) => {
        const result = rehearsal.cameras.find((one) => one.camera === camera.id);
        const lane = lanes.at[place];
        if (result === undefined || lane === undefined) return null;
        return (
          <Lane
            key={camera.id}
            camera={camera}
            result={result}
            assignments={plan.assignments.filter((one) => one.camera === camera.id)}
            batteries={rehearsal.batteries.filter((one) => wasIn(one, camera.id))}
            dying={dyingWith(rehearsal, camera.id)}
            stores={rehearsal.cards.filter((one) => wasIn(one, camera.id))}
            scale={scale}
            lane={lane}
            window={window}
            laid={rehearsal.items}
            phone={lanes.phone}
          />
        );
      })}
      <Telling
        moves={rehearsal.moves}
        cameras={kit.cameras}
        scale={scale}
        lanes={lanes}
        clock={clock}
      />
      <Leads rehearsal={rehearsal} document={document} scale={scale} lanes={lanes} />
    </g>
  );
});

/** What a change that is tried makes of the cameras, over all that stands still. */
const Ghosts = memo(function Ghosts(props: SceneProps & { ghost: Rehearsal }) {
  const { document, rehearsal, scale, lanes, window, ghost } = props;
  return document.kit.cameras.map((camera, place) => {
    const now = rehearsal.cameras.find((one) => one.camera === camera.id);
    const then = ghost.cameras.find((one) => one.camera === camera.id);
    const lane = lanes.at[place];
    if (now === undefined || then === undefined || now === then || lane === undefined) return null;
    return (
      <Ghost key={camera.id} now={now} then={then} scale={scale} lane={lane} window={window} />
    );
  });
});

function wasIn(unit: Pooled, camera: string): boolean {
  return unit.stays.some((stay) => stay.place === camera);
}

function Chosen({
  document,
  scale,
  lanes,
  cell,
}: Pick<DrawingProps, "document" | "scale" | "lanes"> & { cell: Cell }) {
  const place = document.kit.cameras.findIndex((one) => one.id === cell.camera);
  const band = scale.bands.find((one) => one.id === cell.item);
  const lane = lanes.at[place];
  if (lane === undefined || band === undefined) return null;
  return (
    <rect
      x={lane.x + 1}
      y={band.y0 + 1}
      width={lane.w - 2}
      height={band.y1 - band.y0 - 2}
      fill="none"
      stroke="var(--act)"
      strokeWidth={2}
    />
  );
}

function HandLine({
  clock,
  scale,
  lanes,
  handMs,
  window,
}: Pick<DrawingProps, "clock" | "scale" | "lanes" | "handMs" | "window">) {
  if (handMs < window.startMs || handMs > window.endMs) return null;
  const y = scale.y(handMs);
  const flagY = Math.min(Math.max(y, 10), scale.height - 10);
  const width = lanes.phone ? 42 : 46;
  return (
    <g data-part="hand">
      <line
        x1={lanes.firstX}
        x2={lanes.width}
        y1={y}
        y2={y}
        stroke="var(--paper)"
        strokeWidth={4}
      />
      <line x1={lanes.firstX} x2={lanes.width} y1={y} y2={y} stroke="var(--act)" strokeWidth={2} />
      <line
        x1={width}
        x2={lanes.phone ? lanes.firstX : lanes.wordsX - 4}
        y1={y}
        y2={y}
        stroke="var(--act)"
        strokeWidth={2}
      />
      <path
        d={`M0 ${String(flagY - 10)}h${String(width - 4)}l6 10l-6 10h-${String(width - 4)}z`}
        fill="var(--act)"
      />
      <text
        className="label"
        x={5}
        y={flagY + 5}
        fontSize={14}
        fontWeight={740}
        fill="var(--paper)"
      >
        {clock.time(handMs)}
      </text>
    </g>
  );
}
