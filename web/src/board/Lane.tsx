import { memo } from "react";
import type { Assignment, Camera, CameraResult, LaidItem, Loss, Pooled } from "../domain/types";
import type { Band, Elastic } from "../scale/elastic";
import type { Lanes } from "../scale/lanes";
import { minutesText } from "../domain/units";
import { LINE_PX } from "../scale/labels";
import { gapTexts } from "./gapTexts";
import { BatteryNames, CardColumn } from "./LaneUnits";
import { areaPath, columnPoints, linePath } from "../scale/rope";

const SPINE_PX: Record<Assignment["importance"], number> = { must: 4, want: 2, nice: 1 };
const FILLS: Record<Assignment["pattern"]["kind"], string> = {
  roll: "var(--rope)",
  takes: "url(#t-takes)",
  loop: "url(#t-loop)",
  windows: "var(--rope)",
  interval: "url(#t-interval)",
  armed: "url(#t-armed)",
};
const GAP_MIN_PX = 12;
const GUTTER_WORDS_PX = 60;
const BOX_WORDS_PX = 12;
const COOL_C = 15;

export interface LaneProps {
  camera: Camera;
  result: CameraResult;
  assignments: readonly Assignment[];
  batteries: readonly Pooled[];
  stores: readonly Pooled[];
  scale: Elastic;
  lanes: Lanes;
  x: number;
  window: { startMs: number; endMs: number };
  laid: readonly LaidItem[];
  compact: boolean;
  /** Rope, heat, frost and gaps only: neither card nor words, for ropes that stand close. */
  bare?: boolean;
}

/** One camera's rope, heat, card and gaps over the window; drawn anew only when they change. */
export const Lane = memo(function Lane(props: LaneProps) {
  const { lanes, scale, x, bare = false } = props;
  const spineX = x + lanes.spine;
  return (
    <g>
      {bare ? null : (
        <line
          x1={spineX - lanes.wall}
          x2={spineX - lanes.wall}
          y1={0}
          y2={scale.height}
          stroke="var(--rule)"
          strokeWidth={0.8}
        />
      )}
      <Heat {...props} spineX={spineX} />
      <line x1={spineX} x2={spineX} y1={0} y2={scale.height} stroke="var(--ink)" strokeWidth={1} />
      {scale.bands.map((band) => {
        const assignment = props.assignments.find((one) => one.item === band.id);
        return assignment ? (
          <Stretch key={band.id} {...props} band={band} assignment={assignment} spineX={spineX} />
        ) : (
          <Idle key={band.id + String(band.startMs)} {...props} band={band} spineX={spineX} />
        );
      })}
      <Frost {...props} spineX={spineX} />
      {bare ? null : <CardColumn {...props} />}
      <Gaps {...props} spineX={spineX} />
      <BatteryNames {...props} spineX={spineX} />
    </g>
  );
}, isSame);

/** Whether all that a lane draws is the same; lists one by one, as they are made anew. */
function isSame(old: LaneProps, now: LaneProps): boolean {
  return (Object.keys(old) as (keyof LaneProps)[]).every((key) => sameIn(old[key], now[key]));
}

function sameIn(before: unknown, after: unknown): boolean {
  if (before === after) return true;
  if (!Array.isArray(before) || !Array.isArray(after) || before.length !== after.length)
    return false;
  return before.every((one, place) => one === after[place]);
}

function Heat({ camera, result, lanes, scale, window, spineX }: LaneProps & { spineX: number }) {
  const span = result.stop_c - COOL_C;
  const widthOf = (bodyC: number) => lanes.wall * Math.min(1, Math.max(0, (bodyC - COOL_C) / span));
  const points = columnPoints(
    result.course,
    window.startMs,
    window.endMs,
    scale.y,
    (m) => spineX - 2 - widthOf(m.bodyC) * 0.86,
  );
  const stops = result.gaps.filter(
    (gap) => gap.cause === "hot" && gap.start_ms >= window.startMs && gap.start_ms < window.endMs,
  );
  return (
    <g data-part={`heat-${camera.id}`}>
      <path d={areaPath(points, spineX - 2)} fill="url(#t-heat)" />
      <path d={linePath(points)} fill="none" stroke="var(--ember)" strokeWidth={0.8} />
      {stops.map((gap) => (
        <rect
          key={gap.start_ms}
          x={spineX - lanes.wall - 3}
          y={scale.y(gap.start_ms) - 3}
          width={6}
          height={7}
          fill="var(--ember)"
        />
      ))}
    </g>
  );
}

interface StretchProps extends LaneProps {
  band: Band;
  assignment: Assignment;
  spineX: number;
}

function Stretch({ camera, band, assignment, result, lanes, scale, spineX }: StretchProps) {
  const points = columnPoints(
    result.course,
    band.startMs,
    band.endMs,
    scale.y,
    (m) => spineX + m.charge * lanes.rope,
  );
  if (fedOnly(camera, assignment))
    return <Fed band={band} assignment={assignment} lanes={lanes} spineX={spineX} />;
  const blocks = assignment.pattern.kind === "windows" ? openIn(result, band) : [band];
  const spine = SPINE_PX[assignment.importance];
  const kind = assignment.pattern.kind;
  return (
    <g>
      {blocks.map((block) => (
        <path
          key={block.startMs}
          d={areaPath(
            columnPoints(
              result.course,
              block.startMs,
              block.endMs,
              scale.y,
              (m) => spineX + m.charge * lanes.rope,
            ),
            spineX,
          )}
          fill={FILLS[kind]}
        />
      ))}
      <path
        d={linePath(points)}
        fill="none"
        stroke="var(--rope)"
        strokeWidth={1.2}
        strokeDasharray={kind === "windows" ? "1 3" : undefined}
      />
      <rect x={spineX - 1} y={band.y0} width={spine} height={band.y1 - band.y0} fill="var(--ink)" />
    </g>
  );
}

const FED_PX = 12;

function fedOnly(camera: Camera, assignment: Assignment): boolean {
  return camera.set_ups.find((one) => one.id === assignment.set_up)?.power === "outside_only";
}

/** On outside power with the battery out nothing is spent: a cord of even width, with a plug. */
function Fed({
  band,
  assignment,
  lanes,
  spineX,
}: Pick<StretchProps, "band" | "assignment" | "lanes" | "spineX">) {
  const height = band.y1 - band.y0;
  const spine = SPINE_PX[assignment.importance];
  return (
    <g>
      <rect
        x={spineX}
        y={band.y0}
        width={FED_PX}
        height={height}
        fill={FILLS[assignment.pattern.kind]}
        stroke="var(--rope)"
      />
      <rect x={spineX - 1} y={band.y0} width={spine} height={height} fill="var(--ink)" />
      {height >= 15 && lanes.rope >= 40 ? (
        <text
          className="label"
          x={spineX + FED_PX + 4}
          y={band.y0 + 13}
          fontSize={12}
          fill="var(--ink-2)"
        >
          outside
        </text>
      ) : null}
    </g>
  );
}

/** Windows are true to the clock: a block for each that opened, nothing between. */
function openIn(result: CameraResult, band: Band): { startMs: number; endMs: number }[] {
  return result.filmed
    .filter((span) => span.item === band.id)
    .map((span) => ({
      startMs: Math.max(span.start_ms, band.startMs),
      endMs: Math.min(span.end_ms, band.endMs),
    }))
    .filter((span) => span.endMs > span.startMs);
}

const FROST_FROM = 0.02;

/** The charge that the cold holds back, as a strip from the spine; where it meets the charge, the rope ends. */
function Frost({
  result,
  lanes,
  scale,
  window,
  spineX,
  assignments,
}: LaneProps & { spineX: number }) {
  const asked = new Set(assignments.map((one) => one.item));
  return (
    <g data-part="frost">
      {scale.bands
        .filter((band) => asked.has(band.id))
        .map((band) => {
          const points = columnPoints(
            result.course,
            Math.max(band.startMs, window.startMs),
            Math.min(band.endMs, window.endMs),
            scale.y,
            (m) => spineX + (m.held >= FROST_FROM ? Math.min(m.held, m.charge) : 0) * lanes.rope,
          );
          if (points.every((point) => point.x <= spineX)) return null;
          return (
            <g key={`${band.id}-${String(band.startMs)}`}>
              <path d={areaPath(points, spineX)} fill="url(#t-frost)" />
              <path d={linePath(points)} fill="none" stroke="var(--frost)" strokeWidth={1.2} />
            </g>
          );
        })}
    </g>
  );
}

const DRAINS = 0.005;

/** A camera that is not asked: nothing, or a dotted charge edge when something drains it. */
function Idle({ band, result, lanes, scale, spineX }: LaneProps & { band: Band; spineX: number }) {
  const points = columnPoints(
    result.course,
    band.startMs,
    band.endMs,
    scale.y,
    (m) => spineX + m.charge * lanes.rope,
  );
  const drained = ((points[0]?.x ?? 0) - (points.at(-1)?.x ?? 0)) / lanes.rope;
  if (drained < DRAINS || drained > 1) return null;
  return (
    <path
      d={linePath(points)}
      fill="none"
      stroke="var(--rope)"
      strokeWidth={1.2}
      strokeDasharray="1 3"
    />
  );
}

/** What was asked and is not filmed: a box over the full rope, minutes and cause in the gutter. */
function Gaps({
  result,
  lanes,
  scale,
  window,
  compact,
  bare = false,
  x,
  spineX,
}: LaneProps & { spineX: number }) {
  const losses = result.losses.filter(
    (loss) => loss.end_ms > window.startMs && loss.start_ms < window.endMs,
  );
  const stops = new Set(scale.bands.filter((one) => one.kind === "stop").map((one) => one.id));
  const onLegs = losses.filter((loss) => !stops.has(loss.item));
  const narrow = lanes.gutterW < GUTTER_WORDS_PX;
  const texts = narrow ? [] : gapTexts(onLegs, scale, compact);
  const inBox = (loss: Loss, height: number) =>
    lanes.phone || bare ? false : height >= BOX_WORDS_PX && (narrow || stops.has(loss.item));
  return (
    <g data-part="gaps">
      {losses.map((loss) => {
        const top = scale.y(loss.start_ms);
        const height = Math.max(GAP_MIN_PX, scale.y(loss.end_ms) - top);
        return (
          <g key={`${loss.item}-${loss.cause}`}>
            <rect
              x={spineX + 1}
              y={top - 1}
              width={lanes.rope + 3}
              height={height + 2}
              fill="var(--paper)"
            />
            <rect
              x={spineX + 3}
              y={top + 1}
              width={lanes.rope - 2}
              height={height - 2}
              fill="url(#t-gap)"
              stroke="var(--gap)"
              strokeWidth={2}
            />
            {inBox(loss, height) ? (
              <text
                className="label"
                x={spineX + 2 + lanes.rope / 2}
                y={top + height / 2 + 4}
                textAnchor="middle"
                fontSize={12}
                fontWeight={640}
                fill="var(--gap)"
                stroke="var(--paper)"
                strokeWidth={4}
                paintOrder="stroke"
              >
                {loss.minutes > 0 ? minutesText(loss.minutes) : "< 1 min"}
              </text>
            ) : null}
          </g>
        );
      })}
      <g className="label" fill="var(--gap)" fontSize={13} fontWeight={640}>
        {texts.map((text) => (
          <text key={text.key} x={x + lanes.gutter} y={text.y + 12}>
            {text.minutes}
            {text.cause === null ? null : (
              <tspan x={x + lanes.gutter} dy={LINE_PX} fontWeight={450}>
                {text.cause}
              </tspan>
            )}
          </text>
        ))}
      </g>
    </g>
  );
}
