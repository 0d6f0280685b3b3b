import type { Item, Way } from "../../domain/types";
import { kilometresText, metresText } from "../../domain/units";

const PX = { height: 190, left: 58, foot: 26, top: 14 };

/** A way from the side, with the edges of its legs. */
export function ProfileView({
  way,
  items,
  width,
}: {
  way: Way;
  items: readonly Item[];
  width: number;
}) {
  const heights = way.height_m.length > 0 ? way.height_m : way.latitude.map(() => 0);
  const low = heights.reduce((a, b) => Math.min(a, b), Infinity);
  const high = heights.reduce((a, b) => Math.max(a, b), -Infinity);
  const span = Math.max(100, (high - low) * 1.1);
  const bottom = PX.height - PX.foot;
  const x = (metres: number) => PX.left + (metres / way.length_m) * (width - PX.left - 8);
  const y = (metres: number) => bottom - ((metres - low) / span) * (bottom - PX.top);
  const last = heights.length - 1;
  const line = heights
    .map((metres, n) => `${x((n / last) * way.length_m).toFixed(1)} ${y(metres).toFixed(1)}`)
    .join("L");
  const edges = items.flatMap((one) =>
    one.kind === "leg" && one.on_way != null ? [one.on_way.from_m] : [],
  );
  return (
    <svg
      width={width}
      height={PX.height}
      role="img"
      aria-label={`The way from the side, ${metresText(low)} to ${metresText(high)}`}
      className="label"
    >
      <path
        d={`M${x(0).toFixed(1)} ${String(bottom)}L${line}L${x(way.length_m).toFixed(1)} ${String(bottom)}z`}
        fill="var(--rope-ground)"
        stroke="var(--rope)"
        strokeWidth={2}
      />
      {edges.slice(1).map((start) => (
        <line
          key={start}
          x1={x(start)}
          x2={x(start)}
          y1={PX.top}
          y2={bottom + 6}
          stroke="var(--ink)"
          strokeWidth={1.2}
        />
      ))}
      {[low, high].map((metres, place) => (
        <text
          key={place}
          x={PX.left - 6}
          y={y(metres) + 4}
          textAnchor="end"
          fontSize={13}
          fill="var(--ink-2)"
        >
          {metresText(metres)}
        </text>
      ))}
      <text x={width - 8} y={PX.height - 8} textAnchor="end" fontSize={13} fill="var(--ink-2)">
        {kilometresText(way.length_m)}
      </text>
    </svg>
  );
}
