import { type KeyboardEvent, useRef } from "react";
import { CordEnd } from "../../board/CordEnd";
import { MinuteRail } from "../../board/MinuteRail";
import {
  clockText,
  conditionLines,
  END_WORDS,
  modeName,
  nextSentence,
  runSentence,
} from "../../domain/bench";
import type { Camera } from "../../domain/types";
import { minutesText } from "../../domain/units";
import { type BenchLayout, HANG_PX, type Lane, RAIL, TOP, twoLines } from "./benchLayout";

interface Props {
  layout: BenchLayout;
  camera: Camera;
  width: number;
  chosen: string | null;
  onChoose: (id: string) => void;
}

const HALF = 9;
const BAND_HALF = 25;
const HALO = { stroke: "var(--paper)", strokeWidth: 4, paintOrder: "stroke" } as const;

/** Runs as cords down a common scale of minutes; behind each, what all of them together foretell. */
export function RunsPicture({ layout, camera, width, chosen, onChoose }: Props) {
  const wide = Math.max(width, layout.width);
  const list = useRef<HTMLUListElement>(null);
  const { lanes, y } = layout;
  const stop = lanes.find((lane) => lane.id === chosen)?.id ?? lanes[0]?.id;
  const onKey = (event: KeyboardEvent, place: number) => {
    const by = { ArrowRight: 1, ArrowLeft: -1 }[event.key];
    const to = { Home: 0, End: lanes.length - 1 }[event.key];
    const found = to ?? (by === undefined ? undefined : place + by);
    if (found === undefined || lanes[found] === undefined) return;
    event.preventDefault();
    list.current?.querySelectorAll("button")[found]?.focus();
  };
  return (
    <div className="runs-picture" style={{ width: wide }}>
      <svg width={wide} height={layout.height} aria-hidden="true" className="label">
        <MinuteRail x0={RAIL} x1={wide} {...layout} />
        <line x1={RAIL} x2={wide} y1={TOP} y2={TOP} stroke="var(--ink)" strokeWidth={5} />
        {lanes.map((lane) => (
          <LaneDrawing key={lane.id} lane={lane} camera={camera} layout={layout} />
        ))}
        {lanes
          .filter((lane) => lane.id === chosen)
          .map((lane) => (
            <rect
              key={lane.id}
              x={lane.x - layout.laneWidth / 2 + 3}
              y={2}
              width={layout.laneWidth - 6}
              height={4}
              fill="var(--act)"
            />
          ))}
      </svg>
      <ul className="lanes" aria-label="Runs" ref={list}>
        {lanes.map((lane, place) => (
          <li
            key={lane.id}
            style={{ left: lane.x - layout.laneWidth / 2, width: layout.laneWidth }}
          >
            <button
              type="button"
              className="plain"
              tabIndex={lane.id === stop ? 0 : -1}
              aria-label={laneSentence(lane, camera)}
              aria-pressed={lane.id === chosen}
              onClick={() => onChoose(lane.id)}
              onKeyDown={(event) => onKey(event, place)}
            >
              <span className="lane-space" style={{ height: layout.height - y(0) + TOP }} />
              <span className={wordsClass(lane)}>{laneWords(lane)}</span>
            </button>
          </li>
        ))}
      </ul>
    </div>
  );
}

function wordsClass(lane: Lane): string {
  if (lane.kind === "next") return "lane-words start";
  return lane.kind === "run" && lane.told?.outlier === true ? "lane-words odd" : "lane-words";
}

function laneWords(lane: Lane): string {
  if (lane.kind === "run") return lane.told?.words ?? "";
  return lane.kind === "test" ? "Runs now." : "Start this run";
}

function laneSentence(lane: Lane, camera: Camera): string {
  switch (lane.kind) {
    case "run":
      return runSentence(lane.run, lane.told, camera);
    case "test":
      return `Runs now. ${modeName(camera, lane.test.mode)}, ${clockText(lane.minutes)}`;
    case "next":
      return nextSentence(lane.next, camera);
  }
}

interface LaneProps {
  lane: Lane;
  camera: Camera;
  layout: BenchLayout;
}

function LaneDrawing({ lane, camera, layout }: LaneProps) {
  const tried = lane.kind === "run" ? lane.run : lane.kind === "test" ? lane.test : lane.next;
  const [air, built] = conditionLines(tried, camera);
  const letters = Math.floor(layout.laneWidth / 6.2);
  return (
    <g>
      <g textAnchor="middle" fill="var(--ink)">
        <text x={lane.x} y={24} fontSize={14} fontWeight={740}>
          {modeName(camera, tried.mode).slice(0, letters)}
        </text>
        <text x={lane.x} y={41} fontSize={13}>
          {air}
        </text>
        {twoLines(built, letters).map((words, line) => (
          <text key={line} x={lane.x} y={57 + 15 * line} fontSize={12} fill="var(--ink-2)">
            {words}
          </text>
        ))}
      </g>
      {lane.kind === "run" ? <RunCord lane={lane} layout={layout} /> : null}
      {lane.kind === "test" ? (
        <rect
          x={lane.x - HALF}
          y={TOP}
          width={2 * HALF}
          height={layout.y(lane.minutes) - TOP}
          fill="var(--paper)"
          stroke="var(--act)"
          strokeWidth={2}
        />
      ) : null}
      {lane.kind === "next" ? <NextCord lane={lane} layout={layout} /> : null}
    </g>
  );
}

/** What was measured, over the pale band of what is foretold. */
function RunCord({ lane, layout }: { lane: Lane & { kind: "run" }; layout: BenchLayout }) {
  const { run, told, x } = lane;
  const { y, maxMin } = layout;
  const bottom = y(run.minutes);
  const counts = run.excluded == null;
  return (
    <g>
      {told === undefined ? null : (
        <g>
          <rect
            x={x - BAND_HALF}
            y={y(told.low_min)}
            width={2 * BAND_HALF}
            height={Math.max(3, y(told.high_min) - y(told.low_min))}
            fill="var(--rope-ground)"
            stroke="var(--rule)"
            strokeWidth={0.8}
          />
          {told.likely_min <= maxMin ? (
            <line
              x1={x - BAND_HALF}
              x2={x + BAND_HALF}
              y1={y(told.likely_min)}
              y2={y(told.likely_min)}
              stroke="var(--rope)"
              strokeWidth={1.4}
            />
          ) : null}
        </g>
      )}
      <rect
        x={x - HALF}
        y={TOP + 3}
        width={2 * HALF}
        height={Math.max(1, bottom - TOP - 3)}
        fill={counts ? "var(--rope)" : "var(--paper)"}
        stroke="var(--rope)"
        strokeWidth={1.4}
        strokeDasharray={counts ? undefined : "4 3"}
      />
      {run.warned_min == null ? null : (
        <path
          d={`M${String(x + HALF + 2)} ${String(y(run.warned_min))}l12 -5v10z`}
          fill="var(--ember)"
        />
      )}
      <CordEnd end={run.end} x={x} y={bottom} half={HALF + 3} />
      {told?.box_min != null && told.box_min <= maxMin ? (
        <g>
          <circle
            cx={x}
            cy={y(told.box_min)}
            r={5}
            fill="var(--paper)"
            stroke="var(--ink)"
            strokeWidth={1.6}
          />
          <text x={x + 10} y={y(told.box_min) + 4} fontSize={12} fill="var(--ink-2)" {...HALO}>
            box
          </text>
        </g>
      ) : null}
      <Caption
        x={x}
        y={bottom}
        lines={
          run.end === "stopped"
            ? ["not hot by", minutesText(run.minutes)]
            : [minutesText(run.minutes), END_WORDS[run.end]]
        }
      />
    </g>
  );
}

interface CaptionProps {
  x: number;
  y: number;
  lines: [string, string];
}

function Caption({ x, y, lines }: CaptionProps) {
  return (
    <g textAnchor="middle" fontSize={13} {...HALO}>
      <text x={x} y={y + 27} fontWeight={640} fill="var(--ink)">
        {lines[0]}
      </text>
      <text x={x} y={y + 42} fill="var(--ink-2)">
        {lines[1]}
      </text>
    </g>
  );
}

/** The run that would teach most: dotted, ready to start. */
function NextCord({ lane, layout }: { lane: Lane & { kind: "next" }; layout: BenchLayout }) {
  const { x, next } = lane;
  const height = Math.min(HANG_PX, layout.y(next.minutes) - TOP);
  return (
    <g>
      <rect
        x={x - HALF}
        y={TOP + 3}
        width={2 * HALF}
        height={height}
        fill="none"
        stroke="var(--act)"
        strokeWidth={1.8}
        strokeDasharray="2 4"
      />
      <Caption x={x} y={TOP + height - 8} lines={["about", minutesText(next.minutes)]} />
    </g>
  );
}
