import { MinuteRail } from "../../board/MinuteRail";
import { curveEnd, longestShown } from "../../domain/bench";
import { measures, shownIn } from "../../domain/measures";
import type { BodyCurve, Look } from "../../domain/types";
import { degreesText } from "../../domain/units";

interface Props {
  look: Look;
  width: number;
}

const TOP = 34;
const RAIL = 52;
const HANG_PX = 250;
const FOOT_PX = 22;
const LETTER_PX = 7;
const WORDS_PX = { least: 120, share: 0.5 };
const WORD_LINE_PX = 16;
const DASHES: Record<BodyCurve["kind"], string | undefined> = {
  asked: undefined,
  charging: "9 3",
  still: "2 4",
  moving: "2 4",
  set_up: "11 3 2 3",
};

/** The body warming to the right as minutes go down, to the wall where recording stops. */
export function BodyPicture({ look, width }: Props) {
  const ambient = look.curves[0]?.likely_c[0] ?? 20; // every body starts as warm as its room
  const maxMin = longestShown(look.curves.map((one) => one.minutes.at(-1)));
  const pxPerMin = HANG_PX / maxMin;
  const y = (minutes: number) => TOP + Math.min(minutes, maxMin) * pxPerMin;
  const letters = Math.max(...look.curves.map((one) => one.name.length + curveEnd(one).length + 2));
  const wordsPx = Math.max(
    WORDS_PX.least,
    Math.min(width * WORDS_PX.share, LETTER_PX * letters + 16),
  );
  const right = Math.max(RAIL + 110, width - wordsPx);
  const hottest = Math.max(look.stop_high_c, ambient + 10) + 3;
  const x = (celsius: number) =>
    RAIL + ((celsius - ambient) / (hottest - ambient)) * (right - RAIL);
  const ticks = degreeTicks(ambient, hottest);
  const words = spread(
    look.curves.map((one) => ({ key: one.name, y: y(one.minutes.at(-1) ?? 0) + 4, curve: one })),
  );
  const asked = look.curves[0];
  return (
    <svg
      width={width}
      height={TOP + HANG_PX + FOOT_PX}
      role="img"
      aria-label={`Recording stops at ${degreesText(look.stop_c)}, between ${degreesText(look.stop_low_c)} and ${degreesText(look.stop_high_c)}. ${look.curves.map((one) => `${one.name}: ${curveEnd(one)}`).join("; ")}.`}
      className="label body-picture"
    >
      <defs>
        <pattern
          id="b-wall"
          width="5"
          height="5"
          patternUnits="userSpaceOnUse"
          patternTransform="rotate(45)"
        >
          <rect width="1.6" height="5" fill="var(--ember)" />
        </pattern>
      </defs>
      <MinuteRail x0={RAIL} x1={right} maxMin={maxMin} pxPerMin={pxPerMin} y={y} />
      {ticks.map((celsius) => (
        <g key={celsius}>
          <line
            x1={x(celsius)}
            x2={x(celsius)}
            y1={TOP - 4}
            y2={TOP}
            stroke="var(--ink)"
            strokeWidth={1.2}
          />
          <text x={x(celsius)} y={22} textAnchor="middle" fontSize={13} fill="var(--ink-2)">
            {degreesText(celsius)}
          </text>
        </g>
      ))}
      <line x1={RAIL} x2={right} y1={TOP} y2={TOP} stroke="var(--ink)" strokeWidth={1.6} />
      <rect
        x={x(look.stop_low_c)}
        y={TOP}
        width={Math.max(2, x(look.stop_high_c) - x(look.stop_low_c))}
        height={HANG_PX}
        fill="url(#b-wall)"
        opacity={0.45}
      />
      <line
        x1={x(look.stop_c)}
        x2={x(look.stop_c)}
        y1={TOP}
        y2={TOP + HANG_PX}
        stroke="var(--ember)"
        strokeWidth={2.4}
      />
      <text
        x={x(look.stop_c)}
        y={TOP + HANG_PX + 16}
        textAnchor="middle"
        fontSize={13}
        fontWeight={640}
        fill="var(--ink)"
      >
        stops {degreesText(look.stop_c)}
      </text>
      {asked === undefined ? null : <path d={band(asked, x, y)} fill="var(--rope-ground)" />}
      {look.curves.map((one) => (
        <path
          key={one.name}
          d={line(one, x, y)}
          fill="none"
          stroke={one.kind === "asked" ? "var(--rope)" : "var(--ink)"}
          strokeWidth={one.kind === "asked" ? 3 : 1.6}
          strokeDasharray={DASHES[one.kind]}
        />
      ))}
      {words.map(({ key, y: top, curve }) => (
        <g key={key}>
          <line
            x1={x(curve.likely_c.at(-1) ?? ambient)}
            x2={right + 8}
            y1={y(curve.minutes.at(-1) ?? 0)}
            y2={top - 4}
            stroke="var(--ink-2)"
            strokeWidth={0.8}
          />
          <text
            x={right + 12}
            y={top}
            fontSize={13}
            fontWeight={curve.kind === "asked" ? 740 : 450}
            fill="var(--ink)"
          >
            {curve.name}: {curveEnd(curve)}
          </text>
        </g>
      ))}
    </svg>
  );
}

type Scale = (value: number) => number;

function line(curve: BodyCurve, x: Scale, y: Scale): string {
  return curve.minutes
    .map((minutes, place) => {
      const point = `${x(curve.likely_c[place] ?? 0).toFixed(1)} ${y(minutes).toFixed(1)}`;
      return `${place === 0 ? "M" : "L"}${point}`;
    })
    .join("");
}

function band(curve: BodyCurve, x: Scale, y: Scale): string {
  const side = (values: readonly number[]) =>
    curve.minutes.map(
      (minutes, place) => `${x(values[place] ?? 0).toFixed(1)} ${y(minutes).toFixed(1)}`,
    );
  return `M${side(curve.low_c).join("L")}L${side(curve.high_c).reverse().join("L")}z`;
}

/** Temperatures [°C] of the marks: round in the measures that they are told in. */
function degreeTicks(from: number, to: number): number[] {
  const { of, back } = shownIn("°C");
  const step = measures() === "metric" ? 10 : 20;
  const first = Math.ceil(of(from) / step) * step;
  const count = Math.max(0, Math.floor((of(to) - first) / step) + 1);
  return Array.from({ length: count }, (_, n) => back(first + n * step));
}

/** Words at the ends of curves, moved down until none covers another, and up from the foot. */
function spread<Word extends { y: number }>(words: readonly Word[]): Word[] {
  const sorted = [...words].sort((a, b) => a.y - b.y);
  const foot = TOP + HANG_PX;
  return sorted.reduce<Word[]>((placed, word, place) => {
    const above = placed.at(-1)?.y ?? -Infinity;
    const left = sorted.length - 1 - place;
    const y = Math.max(Math.min(word.y, foot - left * WORD_LINE_PX), above + WORD_LINE_PX);
    return [...placed, { ...word, y }];
  }, []);
}
