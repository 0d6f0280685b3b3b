import type { Clock } from "../domain/clock";
import type { Item, Rehearsal } from "../domain/types";
import { degreesText, metresText, speedText } from "../domain/units";
import type { Band, Elastic } from "../scale/elastic";
import type { Lanes } from "../scale/lanes";
import { hourMarks, spaced } from "../scale/ticks";

export interface RailsProps {
  items: readonly Item[];
  rehearsal: Rehearsal;
  clock: Clock;
  scale: Elastic;
  lanes: Lanes;
  window: { startMs: number; endMs: number };
}

/** Clock, light, ground and each leg's words at the left; stops as level bands across the board. */
export function Rails(props: RailsProps) {
  const { scale, lanes } = props;
  return (
    <g>
      {scale.bands.map((band) =>
        band.kind === "leg" ? null : (
          <rect
            key={band.id + String(band.startMs)}
            x={lanes.lightX}
            y={band.y0}
            width={Math.max(0, lanes.width - lanes.lightX)}
            height={band.y1 - band.y0}
            fill="var(--band)"
          />
        ),
      )}
      {scale.bands.map((band) => (
        <line
          key={band.id + String(band.startMs)}
          x1={lanes.lightX}
          x2={lanes.width}
          y1={band.y1}
          y2={band.y1}
          stroke="var(--ink)"
          strokeWidth={band.kind === "leg" ? 1 : 1.2}
        />
      ))}
      <line
        x1={lanes.lightX}
        x2={lanes.width}
        y1={0.5}
        y2={0.5}
        stroke="var(--ink)"
        strokeWidth={1.2}
      />
      {lanes.phone ? <PhoneWords {...props} /> : <ClockRail {...props} />}
      <LightRail {...props} />
      {lanes.phone ? null : <Ground {...props} />}
      {lanes.phone
        ? null
        : scale.bands.map((band) => (
            <Words key={band.id + String(band.startMs)} band={band} {...props} />
          ))}
    </g>
  );
}

function ClockRail({ clock, scale, lanes, window }: RailsProps) {
  const minute = Number(clock.time(window.startMs).slice(3));
  return (
    <g className="label" fontSize={13} fill="var(--ink-2)">
      {spaced(hourMarks(window.startMs, window.endMs, minute), scale.y, 15).map((ms) => {
        const y = scale.y(ms);
        return (
          <g key={ms}>
            <text x={28} y={y + 4.5} textAnchor="middle">
              {clock.time(ms).slice(0, 2)}
            </text>
            <line x1={40} x2={lanes.lightX} y1={y} y2={y} stroke="var(--ink-2)" strokeWidth={1} />
          </g>
        );
      })}
      {scale.bands.map((band) =>
        band.stretched && band.kind !== "leg" ? (
          <path
            key={band.id}
            d={`M${String(lanes.lightX - 6)} ${String((band.y0 + band.y1) / 2 - 6)}l4 3l-4 3l4 3l-4 3`}
            fill="none"
            stroke="var(--ink-2)"
            strokeWidth={1}
          />
        ) : null,
      )}
    </g>
  );
}

function LightRail({ rehearsal, scale, lanes, window }: RailsProps) {
  const fills = { night: "var(--night)", twilight: "var(--twilight)", day: "var(--paper)" };
  return (
    <g>
      {rehearsal.light.map((light) => {
        const from = Math.max(light.start_ms, window.startMs);
        const to = Math.min(light.end_ms, window.endMs);
        if (to <= from) return null;
        const y = scale.y(from);
        return (
          <rect
            key={light.start_ms}
            x={lanes.lightX}
            y={y}
            width={lanes.lightW}
            height={scale.y(to) - y}
            fill={fills[light.kind]}
          />
        );
      })}
      <rect
        x={lanes.lightX}
        y={0}
        width={lanes.lightW}
        height={scale.height}
        fill="none"
        stroke="var(--ink-2)"
        strokeWidth={1}
      />
    </g>
  );
}

function heightsOf(item: Item | undefined): [number, number] | null {
  if (item === undefined) return null;
  if (item.kind === "stop") return item.height_m == null ? null : [item.height_m, item.height_m];
  if (item.height_start_m == null || item.height_end_m == null) return null;
  return [item.height_start_m, item.height_end_m];
}

/** The ground as a vertical profile: high is far to the right. */
function Ground({ items, scale, lanes }: RailsProps) {
  const known = items.flatMap((item) => heightsOf(item) ?? []);
  if (known.length === 0) return null;
  const low = Math.min(...known);
  const span = Math.max(1, Math.max(...known) - low);
  const x = (height: number) => lanes.groundX + 4 + ((height - low) / span) * (lanes.groundW - 6);
  const points = scale.bands.flatMap((band) => {
    const heights = heightsOf(items.find((item) => item.id === band.id));
    return heights === null
      ? []
      : [
          `${x(heights[0]).toFixed(1)},${band.y0.toFixed(1)}`,
          `${x(heights[1]).toFixed(1)},${band.y1.toFixed(1)}`,
        ];
  });
  const base = `${String(lanes.groundX)},`;
  return (
    <polygon
      points={`${base}0 ${points.join(" ")} ${base}${String(scale.height)}`}
      fill="var(--rope-ground)"
      stroke="var(--rope)"
      strokeWidth={1}
    />
  );
}

function Words({ band, items, lanes, clock }: RailsProps & { band: Band }) {
  const item = items.find((one) => one.id === band.id);
  const height = band.y1 - band.y0;
  const x = lanes.wordsX;
  const times = `${clock.time(band.wholeMs.start)}–${clock.time(band.wholeMs.end)}`;
  if (item === undefined)
    return (
      <text className="label" x={x} y={band.y0 + 14} fontSize={13} fill="var(--ink-2)">
        wait until {clock.time(band.wholeMs.end)}
      </text>
    );
  const temp = temperature(item);
  const inline = height < 34;
  const heights = heightsOf(item);
  const climb = item.kind === "leg" && heights ? climbText(heights) : "";
  const second =
    item.kind === "stop" ? `${times}  ${temp}` : [climb, temp].filter(Boolean).join(" · ");
  return (
    <g className="label" fill="var(--ink-2)" fontSize={12}>
      <text
        x={x}
        y={band.y0 + (height < 20 ? height / 2 + 4.5 : 16)}
        fontSize={14}
        fontWeight={item.kind === "stop" ? 640 : 450}
        fill="var(--ink)"
      >
        {clipped(item.name, inline && item.kind === "leg" ? 15 : 18)}
        {inline && item.kind === "leg" ? (
          <tspan fontSize={12} fontWeight={450} fill="var(--ink-2)">{`  ${temp}`}</tspan>
        ) : null}
      </text>
      {inline ? null : (
        <text x={x} y={band.y0 + 31}>
          {second}
        </text>
      )}
      {item.kind === "leg" && height > 50 ? (
        <text x={x} y={band.y0 + 46}>
          {speedText(item.air_mps)} air
        </text>
      ) : null}
      {item.kind === "leg" && height > 66 ? (
        <text x={x} y={band.y0 + 61}>
          hands {HANDS[item.hands]}
        </text>
      ) : null}
    </g>
  );
}

const HANDS = { free: "free", stops: "at stops only", never: "not free" };

function PhoneWords({ scale, items, clock, lanes }: RailsProps) {
  return (
    <g className="label" fontSize={12}>
      {scale.bands.map((band) => {
        const item = items.find((one) => one.id === band.id);
        const height = band.y1 - band.y0;
        return (
          <text
            key={band.id + String(band.startMs)}
            x={lanes.wordsX}
            y={band.y0 + 13}
            fill="var(--ink)"
          >
            <tspan fontWeight={band.kind === "stop" ? 640 : 450}>
              {clipped(item?.name ?? "wait", 9)}
            </tspan>
            {height >= 30 ? (
              <tspan x={lanes.wordsX} dy={14} fill="var(--ink-2)">
                {clock.time(band.wholeMs.start)}
              </tspan>
            ) : null}
          </text>
        );
      })}
    </g>
  );
}

function temperature(item: Item): string {
  const [a, b] = [item.temp_start_c, item.temp_end_c].sort((one, other) => one - other) as [
    number,
    number,
  ];
  if (degreesText(a) === degreesText(b)) return degreesText(a);
  const between = a < 0 || b < 0 ? " to " : "–";
  return `${degreesText(a).slice(0, -1)}${between}${degreesText(b)}`;
}

function climbText([from, to]: [number, number]): string {
  const climb = Math.round(to - from);
  return climb >= 0 ? `▲ ${metresText(climb)}` : `▼ ${metresText(-climb)}`;
}

function clipped(name: string, most: number): string {
  return name.length > most ? `${name.slice(0, most - 1)}…` : name;
}
