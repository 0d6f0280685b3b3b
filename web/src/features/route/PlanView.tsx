import type { PointerEvent } from "react";
import { scaleBar } from "../../domain/track";
import { kilometresText } from "../../domain/units";

export interface Line {
  x_m: readonly number[];
  y_m: readonly number[];
}

export interface Cut {
  x: number;
  y: number;
  stop: boolean;
}

interface Props {
  lines: readonly Line[];
  cuts: readonly Cut[];
  here: readonly [number, number] | null;
  width: number;
  label: string;
  /** Metres east and north under the pointer. */
  onPoint?: (x: number, y: number) => void;
}

const PX = { most: 320, least: 150, edge: 18, foot: 26 };

/** The ways from above in a plan of their own: north up, with a scale bar, no tiles. */
export function PlanView({ lines, cuts, here, width, label, onPoint }: Props) {
  const xs = lines.flatMap((one) => one.x_m);
  const ys = lines.flatMap((one) => one.y_m);
  const [west, east] = ends(xs);
  const [south, north] = ends(ys);
  const wide = Math.max(1, east - west);
  const tall = Math.max(1, north - south);
  const room = width - 2 * PX.edge;
  const inside = Math.min(
    PX.most - 2 * PX.edge - PX.foot,
    Math.max(PX.least, (room * tall) / wide),
  );
  const height = inside + 2 * PX.edge + PX.foot;
  const scale = Math.min(room / wide, inside / tall);
  const x = (metres: number) => width / 2 + (metres - (west + east) / 2) * scale;
  const y = (metres: number) => PX.edge + inside / 2 - (metres - (south + north) / 2) * scale;
  const bar = scaleBar((0.4 * width) / scale);
  const follow = (event: PointerEvent<SVGSVGElement>) => {
    const box = event.currentTarget.getBoundingClientRect();
    onPoint?.(
      (event.clientX - box.left - width / 2) / scale + (west + east) / 2,
      (PX.edge + inside / 2 - (event.clientY - box.top)) / scale + (south + north) / 2,
    );
  };
  return (
    <svg
      width={width}
      height={height}
      role="img"
      aria-label={label}
      className="label plan-view"
      onPointerMove={follow}
      onPointerDown={follow}
    >
      {lines.map((line, place) => (
        <path
          key={place}
          d={`M${line.x_m.map((one, n) => `${x(one).toFixed(1)} ${y(line.y_m[n] ?? 0).toFixed(1)}`).join("L")}`}
          fill="none"
          stroke="var(--rope)"
          strokeWidth={3}
          strokeLinejoin="round"
        />
      ))}
      {cuts.map((cut, place) =>
        cut.stop ? (
          <rect
            key={place}
            x={x(cut.x) - 4}
            y={y(cut.y) - 4}
            width={8}
            height={8}
            fill="var(--ink)"
            stroke="var(--paper)"
            strokeWidth={1.4}
          />
        ) : (
          <circle
            key={place}
            cx={x(cut.x)}
            cy={y(cut.y)}
            r={3}
            fill="var(--paper)"
            stroke="var(--ink)"
            strokeWidth={1.4}
          />
        ),
      )}
      {here === null ? null : (
        <circle
          cx={x(here[0])}
          cy={y(here[1])}
          r={6}
          fill="var(--act)"
          stroke="var(--paper)"
          strokeWidth={2}
        />
      )}
      <path
        d={`M${String(PX.edge)} ${String(height - 12)}v6h${(bar * scale).toFixed(1)}v-6`}
        fill="none"
        stroke="var(--ink)"
        strokeWidth={1.4}
      />
      <text x={PX.edge + 4} y={height - 11} fontSize={13} fill="var(--ink)">
        {kilometresText(bar)}
      </text>
      <g transform={`translate(${String(width - 16)} ${String(height - 44)})`}>
        <path d="M0 22V2M-5 8L0 1L5 8" fill="none" stroke="var(--ink)" strokeWidth={1.6} />
        <text x={0} y={38} textAnchor="middle" fontSize={13} fill="var(--ink)">
          N
        </text>
      </g>
    </svg>
  );
}

function ends(values: readonly number[]): readonly [number, number] {
  return [
    values.reduce((a, b) => Math.min(a, b), Infinity),
    values.reduce((a, b) => Math.max(a, b), -Infinity),
  ];
}
