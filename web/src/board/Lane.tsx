import type { Assignment, Camera, CameraResult, LaidItem, Pooled } from "../domain/types";
import type { Band, Elastic } from "../scale/elastic";
import type { Lanes } from "../scale/lanes";
import { LINE_PX } from "../scale/labels";
import { gapTexts } from "./gapTexts";
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
}

/** One camera's rope, heat, card and gaps over the window. */
export function Lane(props: LaneProps) {
  const { lanes, scale, x } = props;
  const spineX = x + lanes.spine;
  return (
    <g>
      <line
        x1={spineX - lanes.wall}
        x2={spineX - lanes.wall}
        y1={0}
        y2={scale.height}
        stroke="var(--rule)"
        strokeWidth={0.8}
      />
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
      <CardColumn {...props} />
      <Gaps {...props} spineX={spineX} />
      <BatteryNames {...props} spineX={spineX} />
    </g>
  );
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

function Stretch({ band, assignment, result, lanes, scale, spineX }: StretchProps) {
  const points = columnPoints(
    result.course,
    band.startMs,
    band.endMs,
    scale.y,
    (m) => spineX + m.charge * lanes.rope,
  );
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
  x,
  spineX,
}: LaneProps & { spineX: number }) {
  const losses = result.losses.filter(
    (loss) => loss.end_ms > window.startMs && loss.start_ms < window.endMs,
  );
  const texts = lanes.gutterW < 60 ? [] : gapTexts(losses, scale, compact);
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

/** Room left, on each card for as long as it is in. */
function CardColumn({ camera, result, lanes, scale, window, stores, x }: LaneProps) {
  const left = x + lanes.card;
  const width = lanes.phone ? 4 : 8;
  return (
    <g>
      <rect
        x={left}
        y={0}
        width={width}
        height={scale.height}
        fill="none"
        stroke="var(--card)"
        strokeWidth={0.7}
      />
      {stores.flatMap((store) =>
        store.stays
          .filter(
            (stay) =>
              stay.place === camera.id &&
              stay.end_ms > window.startMs &&
              stay.start_ms < window.endMs,
          )
          .map((stay) => {
            const room = (used: number) =>
              left + width * Math.max(0, 1 - used / Math.max(1, store.size));
            const from = Math.max(stay.start_ms, window.startMs);
            const points = columnPoints(
              result.course,
              from,
              Math.min(stay.end_ms, window.endMs),
              scale.y,
              (m) => room(m.usedBytes),
            );
            return (
              <path
                key={`${store.id}-${String(stay.start_ms)}`}
                d={areaPath(points, left)}
                fill="var(--card)"
                fillOpacity={0.85}
              />
            );
          }),
      )}
    </g>
  );
}

/** The fitted battery's name at the top of each battery's first stretch in the window. */
function BatteryNames({
  camera,
  assignments,
  batteries,
  lanes,
  scale,
  spineX,
  laid,
}: LaneProps & { spineX: number }) {
  let shown = "";
  const names: { id: string; name: string; y: number }[] = [];
  for (const band of scale.bands) {
    if (lanes.phone && band.kind === "stop") continue; // the work stands on the rope there
    if (!assignments.some((one) => one.item === band.id)) continue;
    const from = laid.find((one) => one.id === band.id)?.start_ms ?? band.startMs;
    const battery = batteries.find((one) =>
      one.stays.some(
        (stay) =>
          stay.place === camera.id &&
          stay.start_ms <= Math.max(from, band.startMs) &&
          stay.end_ms > from,
      ),
    );
    if (battery && battery.id !== shown && band.y1 - band.y0 >= 15) {
      shown = battery.id;
      names.push({ id: band.id, name: battery.name, y: band.y0 });
    }
  }
  if (lanes.rope < 30) return null;
  return (
    <g className="label" fontSize={12} fontWeight={640}>
      {names.map((one) => (
        <g key={one.id}>
          <rect
            x={spineX + 5}
            y={one.y + 2}
            width={7 + one.name.length * 7}
            height={14}
            fill="var(--paper)"
            stroke="var(--rope)"
            strokeWidth={0.8}
          />
          <text x={spineX + 8.5} y={one.y + 13} fill="var(--ink)">
            {one.name}
          </text>
        </g>
      ))}
    </g>
  );
}
