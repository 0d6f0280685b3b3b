import type { Assignment, Camera, CameraResult } from "../domain/types";
import type { Band } from "../scale/elastic";
import { FILLS } from "./fills";
import { areaPath, columnPoints, linePath } from "../scale/rope";
import type { LanePart } from "./Lane";

const SPINE_PX: Record<Assignment["importance"], number> = { must: 4, want: 2, nice: 1 };

interface StretchProps extends LanePart {
  band: Band;
  assignment: Assignment;
}

/** What is asked on a leg or stop: charge to the right of its spine, as it is recorded. */
export function Stretch({ camera, band, assignment, result, lane, scale, spineX }: StretchProps) {
  const points = columnPoints(
    result.course,
    band.startMs,
    band.endMs,
    scale.y,
    (m) => spineX + m.charge * lane.rope,
  );
  if (fedOnly(camera, assignment))
    return <Fed band={band} assignment={assignment} lane={lane} spineX={spineX} />;
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
              (m) => spineX + m.charge * lane.rope,
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
  lane,
  spineX,
}: Pick<StretchProps, "band" | "assignment" | "lane" | "spineX">) {
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
      {height >= 15 && lane.rope >= 40 ? (
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

const DRAINS = 0.005;

/** A camera that is not asked: nothing, or a dotted charge edge when something drains it. */
export function Idle({ band, result, lane, scale, spineX }: LanePart & { band: Band }) {
  const points = columnPoints(
    result.course,
    band.startMs,
    band.endMs,
    scale.y,
    (m) => spineX + m.charge * lane.rope,
  );
  const drained = ((points[0]?.x ?? 0) - (points.at(-1)?.x ?? 0)) / lane.rope;
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
