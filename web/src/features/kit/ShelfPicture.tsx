import type { Camera, Cord, Kit, MeasuredBeside, Shelf } from "../../domain/types";
import { Bracket } from "../../board/Bracket";
import { CordEnd } from "../../board/CordEnd";
import { MinuteRail } from "../../board/MinuteRail";
import { minutesText } from "../../domain/units";
import type { Opened } from "./opened";
import { type Hook, shelfLayout, TOP } from "./shelfLayout";

interface Props {
  shelf: Shelf;
  kit: Kit;
  width: number;
  onOpen: (opened: Opened) => void;
  /** What was measured and not taken. */
  beside: readonly MeasuredBeside[];
}

const END_WORDS: Record<NonNullable<Cord["end"]>, string> = {
  empty: "empty",
  cold: "too cold",
  hot: "hot",
  card_full: "card full",
  clip_limit: "clip limit",
};

/** Cameras as planks, modes as cords that hang as long as they record. */
export function ShelfPicture({ shelf, kit, width, onOpen, beside }: Props) {
  const layout = shelfLayout(shelf, kit, width);
  const { hooks, planks, height, y, maxMin } = layout;
  const wide = Math.max(width, layout.width);
  const level = shelf.longest ? y(shelf.longest.minutes) : null;
  const runOf = (hook: Hook) =>
    beside.find((one) => one.camera === hook.camera.id && one.mode === hook.mode.id);
  return (
    <div style={{ position: "relative", width: wide }}>
      <svg
        width={wide}
        height={height}
        aria-hidden="true"
        className="label"
        style={{ display: "block" }}
      >
        <defs>
          <pattern
            id="s-typical"
            width="6"
            height="6"
            patternUnits="userSpaceOnUse"
            patternTransform="rotate(45)"
          >
            <rect width="6" height="6" fill="var(--paper)" />
            <rect width="2.6" height="6" fill="var(--rope)" />
          </pattern>
        </defs>
        <MinuteRail x0={50} x1={wide} maxMin={maxMin} pxPerMin={layout.pxPerMin} y={y} />
        {planks.map((plank) => (
          <g key={plank.camera.id}>
            <text x={plank.x0 + 2} y={36} fontSize={12} fill="var(--ink-2)">
              {familyText(kit, plank.camera)}
            </text>
            <rect
              x={plank.x0}
              y={TOP - 8}
              width={plank.x1 - plank.x0}
              height={8}
              fill="var(--ink)"
            />
          </g>
        ))}
        {hooks.map((hook) => (
          <CordLine key={hook.key} hook={hook} y={y} maxMin={maxMin} run={runOf(hook)} />
        ))}
        {level === null ? null : (
          <line x1={50} x2={wide} y1={level} y2={level} stroke="var(--act)" strokeWidth={2} />
        )}
        {hooks.map((hook) => (
          <Caption key={hook.key} hook={hook} y={y} maxMin={maxMin} level={level} />
        ))}
        {level === null ? null : (
          <text
            x={wide - 4}
            y={level - 6}
            textAnchor="end"
            fontSize={13}
            fontWeight={640}
            fill="var(--act)"
            stroke="var(--paper)"
            strokeWidth={4}
            paintOrder="stroke"
          >
            {shelf.longest?.name} {minutesText(shelf.longest?.minutes ?? 0)}
          </text>
        )}
      </svg>
      {planks.map((plank) => (
        <button
          key={plank.camera.id}
          type="button"
          className="plain plank-name label"
          data-unit={`camera/${plank.camera.id}`}
          style={{ left: plank.x0 + 2, top: 2 }}
          onClick={() => onOpen({ kind: "camera", id: plank.camera.id })}
          aria-label={`Camera ${plank.camera.name}: edit`}
        >
          {plank.camera.name}
        </button>
      ))}
      <ul className="shelf-cords" aria-label="Modes">
        {hooks.map((hook) => (
          <li
            key={hook.key}
            style={{ left: hook.x - 30, top: TOP - 24, width: 60, height: height - TOP }}
          >
            <button
              type="button"
              className="plain"
              data-unit={`mode/${hook.camera.id}/${hook.mode.id}`}
              onClick={() => onOpen({ kind: "mode", camera: hook.camera.id, id: hook.mode.id })}
              aria-label={sentence(hook, runOf(hook))}
            />
          </li>
        ))}
      </ul>
    </div>
  );
}

function familyText(kit: Kit, camera: Camera): string {
  const family = kit.families.find((one) => one.id === camera.battery_family);
  const wh = family
    ? `${family.name}, ${((family.mah * family.nominal_v) / 1000).toFixed(1)} W h`
    : "";
  return [camera.model, wh].filter(Boolean).join(" · ");
}

interface LineProps {
  hook: Hook;
  y: (minutes: number) => number;
  maxMin: number;
}

const HALF = 11;

function CordLine({ hook, y, maxMin, run }: LineProps & { run: MeasuredBeside | undefined }) {
  const { cord, x, mode } = hook;
  const end = Math.min(cord.minutes ?? maxMin, maxMin);
  const bottom = y(end);
  const second = cord.second_minutes;
  return (
    <g>
      <text x={x} y={TOP - 13} textAnchor="middle" fontSize={13} fontWeight={640} fill="var(--ink)">
        {mode.name.slice(0, 9)}
      </text>
      <rect
        x={x - HALF}
        y={TOP}
        width={2 * HALF}
        height={bottom - TOP}
        fill={cord.measured ? "var(--rope)" : "url(#s-typical)"}
        stroke="var(--rope)"
        strokeWidth={1.2}
      />
      <CordEnd end={cord.end} x={x} y={bottom} half={HALF + 2} />
      {cord.low_minutes != null && cord.high_minutes != null ? (
        <Bracket
          x={x + HALF + 6}
          y0={y(Math.min(cord.low_minutes, maxMin))}
          y1={y(Math.min(cord.high_minutes, maxMin))}
        />
      ) : null}
      {run !== undefined && run.minutes <= maxMin ? (
        <path
          d={`M${String(x - HALF - 8)} ${String(y(run.minutes))}l6 -5v10z`}
          fill={run.end === "hot" ? "var(--ember)" : "var(--ink)"}
        />
      ) : null}
      {second != null && second <= maxMin ? (
        <g stroke="var(--ink-2)" strokeWidth={1}>
          <line x1={x} x2={x} y1={bottom + 8} y2={y(second)} strokeDasharray="1 3" />
          <line
            x1={x - 7}
            x2={x + 7}
            y1={y(second)}
            y2={y(second)}
            strokeWidth={cord.second_end === "hot" ? 1 : 2}
          />
        </g>
      ) : null}
    </g>
  );
}

const CAPTION_PX = 32;

/** Minutes and end below the cord; below the level line where they would cover it. */
function Caption({ hook, y, maxMin, level }: LineProps & { level: number | null }) {
  const { cord, x, mode } = hook;
  const under = y(Math.min(cord.minutes ?? maxMin, maxMin)) + 16;
  const crosses = level !== null && under < level + 3 && under + CAPTION_PX > level - 3;
  const top = crosses ? level + 4 : under;
  const words = cord.end == null ? "no end" : END_WORDS[cord.end];
  return (
    <g>
      <rect x={x - 27} y={top} width={54} height={CAPTION_PX} fill="var(--paper)" />
      {mode.box_minutes != null && mode.box_minutes <= maxMin ? (
        <circle
          cx={x - HALF - 15}
          cy={y(mode.box_minutes)}
          r={4.5}
          fill="var(--paper)"
          stroke="var(--ink)"
          strokeWidth={1.5}
        />
      ) : null}
      <text x={x} y={top + 13} textAnchor="middle" fontSize={13} fontWeight={640} fill="var(--ink)">
        {cord.minutes == null ? "48 h +" : minutesText(cord.minutes)}
      </text>
      <text x={x} y={top + 28} textAnchor="middle" fontSize={12} fill="var(--ink-2)">
        {words}
      </text>
    </g>
  );
}

function sentence({ camera, mode, cord }: Hook, run: MeasuredBeside | undefined): string {
  const head = `${camera.name} ${mode.name}: `;
  if (cord.minutes == null || cord.end == null)
    return `${head}nothing ends it within 48 hours. Enter changes it.`;
  const range =
    cord.low_minutes != null && cord.high_minutes != null
      ? ` (${minutesText(cord.low_minutes)} to ${minutesText(cord.high_minutes)})`
      : "";
  const then =
    cord.second_minutes != null && cord.second_end != null
      ? ` Otherwise ${END_WORDS[cord.second_end]} after ${minutesText(cord.second_minutes)}.`
      : "";
  const lasts =
    cord.lasts_longest_leg == null
      ? ""
      : cord.lasts_longest_leg
        ? " Lasts your longest leg."
        : " Does not last your longest leg.";
  return `${head}${END_WORDS[cord.end]} after ${minutesText(cord.minutes)}${range}.${then}${lasts} ${assumedText(cord)}${runText(run)} Enter changes it.`;
}

/** What its runs foretell, where the kit does not. */
function runText(run: MeasuredBeside | undefined): string {
  if (run === undefined) return "";
  return ` Measured ${minutesText(run.minutes)}, ${END_WORDS[run.end]}, and not taken.`;
}

function assumedText({ measured, draw_known }: Cord): string {
  if (!draw_known) return "What it draws is not known: a guess.";
  return measured ? "Measured." : "Assumed heat.";
}
