import { memo } from "react";
import type { Item } from "../../domain/types";
import type { Light, RowPicture, Scales, StripLanes } from "./rowPictures";

interface Props {
  item: Item;
  picture: RowPicture;
  scales: Scales;
  lanes: StripLanes;
}

const LIGHTS: Record<Light, string> = {
  night: "var(--night)",
  twilight: "var(--twilight)",
  day: "none",
};
const RAIL_PX = 7;
const STROKE_EVERY_PX = 13;
const SIDES_BOTH_DEG = 30;

/** One row of the picture: light, ground, warmth, airflow and the sun on the kit, down its time. */
export const Strip = memo(function Strip({ item, picture, scales, lanes }: Props) {
  return (
    <svg
      className="route-strip"
      style={{ width: lanes.width }}
      viewBox={`0 0 ${String(lanes.width)} 100`}
      preserveAspectRatio="none"
      aria-hidden="true"
    >
      <LightRail picture={picture} lanes={lanes} />
      <Ground picture={picture} scales={scales} lanes={lanes} stop={item.kind === "stop"} />
      <Warmth item={item} scales={scales} lanes={lanes} />
      {item.kind === "leg" && lanes.air[1] > lanes.air[0] ? (
        <Airflow
          mps={item.air_mps}
          doubt={item.air_doubt_mps}
          height={picture.height}
          scales={scales}
          lanes={lanes}
        />
      ) : null}
      <Sun picture={picture} scales={scales} lanes={lanes} />
    </svg>
  );
});

function LightRail({ picture, lanes }: Pick<Props, "picture" | "lanes">) {
  const [, right] = lanes.clock;
  const [from, to] = lanes.ground;
  const rail = right - RAIL_PX - 4;
  return (
    <>
      {picture.light.map((one) => (
        <g key={one.from} fill={LIGHTS[one.kind]}>
          <rect x={rail} y={one.from * 100} width={RAIL_PX} height={(one.to - one.from) * 100} />
          <rect
            x={from}
            y={one.from * 100}
            width={to - from}
            height={(one.to - one.from) * 100}
            opacity={0.3}
          />
        </g>
      ))}
      <path
        d={`M${String(rail)} 0V100M${String(rail + RAIL_PX)} 0V100`}
        stroke="var(--ink-2)"
        strokeWidth={1}
        vectorEffect="non-scaling-stroke"
      />
      {picture.stretched ? (
        <path
          d={`M${String(rail - 5)} 46L${String(rail - 1)} 50L${String(rail - 5)} 54L${String(rail - 1)} 58`}
          fill="none"
          stroke="var(--ink)"
          strokeWidth={1.2}
          vectorEffect="non-scaling-stroke"
        />
      ) : null}
    </>
  );
}

function Ground({
  picture,
  scales,
  lanes,
  stop,
}: Pick<Props, "picture" | "scales" | "lanes"> & { stop: boolean }) {
  const heights = picture.told?.height_m ?? [];
  if (scales.ground === null || heights.length === 0) return null;
  const [low, high] = scales.ground;
  const [from, to] = lanes.ground;
  const x = (metres: number) =>
    from + 3 + ((metres - low) / Math.max(1, high - low)) * (to - from - 6);
  const last = Math.max(1, heights.length - 1);
  const line = heights
    .map((metres, place) => `${x(metres).toFixed(1)} ${((place / last) * 100).toFixed(2)}`)
    .join("L");
  return (
    <>
      <path d={`M${String(from)} 0L${line}L${String(from)} 100Z`} fill="var(--rope-ground)" />
      <path
        d={`M${line}`}
        fill="none"
        stroke="var(--rope)"
        strokeWidth={stop ? 3 : 1.6}
        vectorEffect="non-scaling-stroke"
      />
    </>
  );
}

function Warmth({ item, scales, lanes }: Pick<Props, "item" | "scales" | "lanes">) {
  const [low, high] = scales.warm;
  const [from, to] = lanes.warm;
  const x = (celsius: number) => from + ((celsius - low) / (high - low)) * (to - from);
  const { temp_start_c: start, temp_end_c: end, temp_doubt_k: doubt } = item;
  const at = (celsius: number) => x(celsius).toFixed(1);
  return (
    <>
      {low < 0 && high > 0 ? (
        <path
          d={`M${at(0)} 0V100`}
          stroke="var(--frost)"
          strokeWidth={1.4}
          strokeDasharray="2 3"
          vectorEffect="non-scaling-stroke"
        />
      ) : null}
      {doubt > 0 ? (
        <path
          d={`M${at(start - doubt)} 0L${at(start + doubt)} 0L${at(end + doubt)} 100L${at(end - doubt)} 100Z`}
          fill="var(--ember)"
          opacity={0.28}
        />
      ) : null}
      <path
        d={`M${at(start)} 0L${at(end)} 100`}
        stroke="var(--ember)"
        strokeWidth={3}
        vectorEffect="non-scaling-stroke"
      />
    </>
  );
}

interface AirflowProps {
  mps: number;
  doubt: number;
  height: number;
  scales: Scales;
  lanes: StripLanes;
}

/** Strokes as long as the air is fast; the doubt as thin ends. */
function Airflow({ mps, doubt, height, scales, lanes }: AirflowProps) {
  const [from, to] = lanes.air;
  const count = Math.max(1, Math.floor(height / STROKE_EVERY_PX));
  const px = (value: number) => (value / scales.mostAir) * (to - from);
  const levels = Array.from({ length: count }, (_, n) => ((n + 0.5) / count) * 100);
  const strokes = (start: number, length: number) =>
    levels
      .map((y) => `M${start.toFixed(1)} ${y.toFixed(1)}h${Math.max(1.5, length).toFixed(1)}`)
      .join("");
  return (
    <>
      <path
        d={strokes(from, px(mps))}
        stroke="var(--ink)"
        strokeWidth={2}
        vectorEffect="non-scaling-stroke"
      />
      {doubt > 0 ? (
        <path
          d={strokes(from + px(mps), px(doubt))}
          stroke="var(--ink-2)"
          strokeWidth={1}
          vectorEffect="non-scaling-stroke"
        />
      ) : null}
    </>
  );
}

/** Sun on the kit: as wide as it is strong, on the side of the travel from which it shines. */
function Sun({ picture, scales, lanes }: Pick<Props, "picture" | "scales" | "lanes">) {
  const told = picture.told;
  const [from, to] = lanes.sun;
  const middle = (from + to) / 2;
  const half = (to - from) / 2;
  const count = Math.max(1, (told?.kit_w_m2.length ?? 1) - 1);
  return (
    <>
      <path
        d={`M${String(middle)} 0V100`}
        stroke="var(--rule)"
        strokeWidth={1}
        vectorEffect="non-scaling-stroke"
      />
      {told?.kit_w_m2.slice(0, -1).map((watts, place) => {
        const wide = (watts / scales.mostSun) * half;
        const side = told.sun_from_deg[place];
        const both = side === undefined || isAlong(side);
        const x = both || side < 0 ? middle - wide : middle;
        return wide < 0.3 ? null : (
          <rect
            key={place}
            x={x}
            y={(place / count) * 100}
            width={both ? 2 * wide : wide}
            height={100 / count}
            fill="var(--rope)"
            shapeRendering="crispEdges"
          />
        );
      })}
    </>
  );
}

function isAlong(side: number): boolean {
  return Math.abs(side) < SIDES_BOTH_DEG || Math.abs(side) > 180 - SIDES_BOTH_DEG;
}
