import type { SumTold } from "../../api/sums";
import { areaPath, linePath } from "../../scale/rope";

const HIGH = 210;
const ROPE = 64;
const LEFT = 12;
const TOP = 20;

const FILLS: Record<SumTold["rope"]["kind"], string> = {
  charge: "var(--rope)",
  room: "var(--card)",
  light: "var(--rope)",
  frames: "var(--rope)",
};

/** The answer as a rope: it hangs as long as it lasts, and narrows as it is spent. */
export function SumRope({ rope }: { rope: SumTold["rope"] }) {
  const last = rope.minutes.at(-1) ?? 0;
  const points = rope.minutes.map((minute, place) => ({
    x: LEFT + (rope.level[place] ?? 0) * ROPE,
    y: TOP + (last > 0 ? minute / last : 0) * HIGH,
  }));
  return (
    <svg
      className="sum-rope"
      width={170}
      height={TOP + HIGH + 26}
      role="img"
      aria-label={`From ${rope.top} to ${rope.bottom}`}
    >
      <text className="label" x={LEFT} y={13} fontSize={13} fill="var(--ink-2)">
        {rope.top}
      </text>
      <rect x={LEFT} y={TOP} width={ROPE} height={HIGH} fill="var(--rope-ground)" opacity={0.5} />
      <path d={areaPath(points, LEFT)} fill={FILLS[rope.kind]} />
      <path d={linePath(points)} fill="none" stroke="var(--ink)" strokeWidth={1.2} />
      {rope.kind === "frames"
        ? Array.from({ length: 23 }, (_, line) => (
            <line
              key={line}
              x1={LEFT}
              x2={LEFT + ROPE}
              y1={TOP + ((line + 1) * HIGH) / 24}
              y2={TOP + ((line + 1) * HIGH) / 24}
              stroke="var(--paper)"
              strokeWidth={3}
            />
          ))
        : null}
      <rect x={LEFT - 2} y={TOP} width={3} height={HIGH} fill="var(--ink)" />
      <line
        x1={LEFT - 2}
        x2={LEFT + ROPE}
        y1={TOP + HIGH}
        y2={TOP + HIGH}
        stroke="var(--ink)"
        strokeWidth={2}
      />
      <text className="label" x={LEFT} y={TOP + HIGH + 17} fontSize={13} fill="var(--ink)">
        {rope.bottom}
      </text>
    </svg>
  );
}
