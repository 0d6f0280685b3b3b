import type { CameraResult } from "../domain/types";
import type { Elastic } from "../scale/elastic";
import type { LaneAt } from "../scale/lanes";
import { areaPath, columnPoints, firstApart, linePath } from "../scale/rope";

interface Props {
  now: CameraResult;
  then: CameraResult;
  scale: Elastic;
  lane: LaneAt;
  window: { startMs: number; endMs: number };
}

const GAP_MIN_PX = 12;

/** The rope as a change would make it, over the one that is; with the gaps that it would leave. */
export function Ghost({ now, then, scale, lane, window }: Props) {
  const from = firstApart(now.course, then.course);
  const spineX = lane.x + lane.spine;
  const gaps = then.losses.filter(
    (loss) => loss.end_ms > window.startMs && loss.start_ms < window.endMs,
  );
  return (
    <g data-part="ghost">
      {from === null || from >= window.endMs ? null : (
        <Edge {...{ then, scale, lane, window, from, spineX }} />
      )}
      {gaps.map((loss) => {
        const top = scale.y(loss.start_ms);
        return (
          <rect
            key={`${loss.item}-${loss.cause}`}
            x={spineX + 1}
            y={top}
            width={lane.rope + 3}
            height={Math.max(GAP_MIN_PX, scale.y(loss.end_ms) - top)}
            fill="none"
            stroke="var(--gap)"
            strokeWidth={2.4}
            strokeDasharray="2 3"
          />
        );
      })}
    </g>
  );
}

function Edge({ then, scale, lane, window, from, spineX }: EdgeProps) {
  const points = columnPoints(
    then.course,
    Math.max(from, window.startMs),
    window.endMs,
    scale.y,
    (moment) => spineX + moment.charge * lane.rope,
  );
  return (
    <>
      <path d={areaPath(points, spineX)} fill="var(--act)" opacity={0.16} />
      <path
        d={linePath(points)}
        fill="none"
        stroke="var(--act)"
        strokeWidth={2.2}
        strokeDasharray="2 4"
      />
    </>
  );
}

type EdgeProps = Omit<Props, "now"> & { from: number; spineX: number };
