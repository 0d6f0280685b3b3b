import { useMemo, useRef, useState } from "react";
import { Lane } from "../../board/Lane";
import { Rails } from "../../board/Rails";
import { Textures } from "../../board/Textures";
import { clockOf, dayWindows } from "../../domain/clock";
import type { Camera, VariantCompared } from "../../domain/types";
import type { Difference } from "../../domain/variants";
import { type Elastic, elastic } from "../../scale/elastic";
import { type Lanes, variantLanes } from "../../scale/lanes";
import { Pick } from "../../ui/fields";
import { useWidth } from "../../ui/useWidth";
import { LETTERS } from "./letters";

interface Props {
  states: readonly VariantCompared[];
  names: readonly string[];
  differences: readonly Difference[];
}

const HEAD_PX = 40;
const FIRST_WIDTH = 940;
const NO_LINES: ReadonlyMap<string, number> = new Map();
const WHOLE = "all";

/**
 * Ropes of the states beside each other on one clock rail: only cameras in which they differ, the
 * stretches that differ framed.
 */
export function VariantBoard({ states, names, differences }: Props) {
  const frame = useRef<HTMLDivElement>(null);
  const width = useWidth(frame, FIRST_WIDTH);
  const [day, setDay] = useState(WHOLE);
  const base = states[0]?.state;
  const clock = useMemo(
    () => (base ? clockOf(base.document.trip.time_zone, base.rehearsal.start_utc) : null),
    [base],
  );
  const days = useMemo(
    () => (base && clock ? dayWindows(base.document.trip, base.rehearsal, clock) : []),
    [base, clock],
  );
  const differ = useMemo(() => new Set(differences.map((one) => one.camera)), [differences]);
  const cameras = useMemo(() => {
    const all = base?.document.kit.cameras ?? [];
    const shown = all.filter((one) => differ.has(one.id));
    return states.length < 2 || shown.length === 0 ? all : shown;
  }, [base, differ, states.length]);
  const chosen = days.find((one) => String(one.number) === day);
  const startMs = chosen?.startMs ?? 0;
  const endMs = chosen?.endMs ?? base?.rehearsal.duration_ms ?? 0;
  const window = useMemo(() => ({ startMs, endMs }), [startMs, endMs]);
  const scale = useMemo(
    () => elastic(base?.rehearsal.items ?? [], window, chosen ? "day" : "stops", NO_LINES),
    [base, window, chosen],
  );
  const lanes = useMemo(
    () => variantLanes(width, cameras.length * states.length),
    [width, cameras.length, states.length],
  );
  if (base === undefined || clock === null) return null;
  const alike = base.document.kit.cameras.filter((one) => !cameras.includes(one));
  return (
    <section aria-label="Ropes side by side">
      <div className="row controls label">
        <Pick
          label="Day"
          value={day}
          choices={[
            { value: WHOLE, name: "All", note: "stops" },
            ...days.map((one) => ({
              value: String(one.number),
              name: String(one.number),
              note: clock.date(one.startMs).replace(/ \w+$/, ""),
            })),
          ]}
          onPick={setDay}
        />
        {alike.length === 0 || states.length < 2 ? null : (
          <span>{alike.map((one) => one.name).join(", ")}: the same in all of them.</span>
        )}
      </div>
      <div ref={frame} className="variant-board">
        <svg
          width={lanes.width}
          height={scale.height + HEAD_PX + 2}
          role="img"
          aria-label={`Charge of ${cameras.map((one) => one.name).join(", ")} in ${names.join(", ")}; the table below says where they differ.`}
        >
          <Textures />
          <g transform={`translate(0 ${String(HEAD_PX)})`}>
            <Rails
              items={base.document.trip.items}
              rehearsal={base.rehearsal}
              clock={clock}
              scale={scale}
              lanes={lanes}
              window={window}
            />
          </g>
          {cameras.map((camera, group) => (
            <CameraRopes
              key={camera.id}
              {...{ camera, group, states, scale, lanes, window }}
              differing={differences.filter((one) => one.camera === camera.id)}
            />
          ))}
        </svg>
      </div>
    </section>
  );
}

interface RopesProps {
  camera: Camera;
  group: number;
  states: Props["states"];
  scale: Elastic;
  lanes: Lanes;
  window: { startMs: number; endMs: number };
  differing: Props["differences"];
}

/** One camera's rope in every state, side by side; where they differ is framed. */
function CameraRopes({ camera, group, states, scale, lanes, window, differing }: RopesProps) {
  const wide = lanes.at[0]?.w ?? 0;
  const x0 = lanes.firstX + group * states.length * wide;
  return (
    <g>
      <text className="label" x={x0 + 2} y={15} fontSize={14} fontWeight={740} fill="var(--ink)">
        {camera.name}
      </text>
      <line
        x1={x0}
        x2={x0}
        y1={2}
        y2={HEAD_PX + scale.height}
        stroke="var(--ink)"
        strokeWidth={1.2}
      />
      {states.map(({ state }, place) => {
        const result = state.rehearsal.cameras.find((one) => one.camera === camera.id);
        const mine = state.document.kit.cameras.find((one) => one.id === camera.id);
        const lane = lanes.at[group * states.length + place];
        if (lane === undefined) return null;
        return (
          <g key={LETTERS[place]}>
            <text
              className="label"
              x={lane.x + lane.spine + 2}
              y={32}
              fontSize={13}
              fontWeight={640}
              fill="var(--ink-2)"
            >
              {LETTERS[place]}
            </text>
            {result === undefined || mine === undefined ? null : (
              <g transform={`translate(0 ${String(HEAD_PX)})`}>
                <Lane
                  camera={mine}
                  result={result}
                  assignments={state.document.plan.assignments.filter(
                    (one) => one.camera === camera.id,
                  )}
                  batteries={[]}
                  stores={[]}
                  scale={scale}
                  lane={lane}
                  window={window}
                  laid={state.rehearsal.items}
                  phone={lanes.phone}
                  bare
                />
              </g>
            )}
          </g>
        );
      })}
      {differing.map((one) => {
        const band = scale.bands.find((each) => each.id === one.item);
        return band === undefined ? null : (
          <rect
            key={one.item}
            x={x0 + 3}
            y={HEAD_PX + band.y0 + 1}
            width={states.length * wide - 6}
            height={band.y1 - band.y0 - 2}
            fill="none"
            stroke="var(--act)"
            strokeWidth={1.6}
            strokeDasharray="5 3"
          />
        );
      })}
    </g>
  );
}
