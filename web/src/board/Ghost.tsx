import type { Course } from "../domain/types";
import type { Elastic } from "../scale/elastic";
import type { Lanes } from "../scale/lanes";
import { areaPath, columnPoints, firstApart, linePath } from "../scale/rope";

interface Props {
  now: Course;
  then: Course;
  scale: Elastic;
  lanes: Lanes;
  window: { startMs: number; endMs: number };
  spineX: number;
}

/** The rope as a change would make it, over the one that is: light, with a dotted edge. */
export function Ghost({ now, then, scale, lanes, window, spineX }: Props) {
  const from = firstApart(now, then);
  if (from === null || from >= window.endMs) return null;
  const points = columnPoints(
    then,
    Math.max(from, window.startMs),
    window.endMs,
    scale.y,
    (moment) => spineX + moment.charge * lanes.rope,
  );
  return (
    <g data-part="ghost">
      <path d={areaPath(points, spineX)} fill="var(--act)" opacity={0.16} />
      <path
        d={linePath(points)}
        fill="none"
        stroke="var(--act)"
        strokeWidth={2.2}
        strokeDasharray="2 4"
      />
    </g>
  );
}
