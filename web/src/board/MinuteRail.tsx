import { minutesText } from "../domain/units";
import { minuteTicks } from "../scale/ticks";

interface Props {
  x0: number;
  x1: number;
  maxMin: number;
  pxPerMin: number;
  y: (minutes: number) => number;
}

/** Minutes down the left, with a rule across at each. */
export function MinuteRail({ x0, x1, maxMin, pxPerMin, y }: Props) {
  return minuteTicks(maxMin, pxPerMin, 30).map((minutes) => (
    <g key={minutes}>
      <line
        x1={x0}
        x2={x1}
        y1={y(minutes)}
        y2={y(minutes)}
        stroke="var(--rule)"
        strokeWidth={0.7}
        opacity={0.7}
      />
      <text x={x0 - 6} y={y(minutes) + 4.5} textAnchor="end" fontSize={13} fill="var(--ink-2)">
        {minutes % 60 === 0 ? `${String(minutes / 60)} h` : minutesText(minutes)}
      </text>
    </g>
  ));
}
