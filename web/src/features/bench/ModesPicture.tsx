import { Bracket } from "../../board/Bracket";
import { CordEnd } from "../../board/CordEnd";
import { MinuteRail } from "../../board/MinuteRail";
import { END_WORDS, longestShown } from "../../domain/bench";
import type { Camera, Look, ModeLook } from "../../domain/types";
import { minutesText } from "../../domain/units";

interface Props {
  look: Look;
  camera: Camera;
  width: number;
  chosen: string;
}

const TOP = 34;
const RAIL = 52;
const HANG_PX = 250;
const CAPTION_PX = 46;
const HALF = 10;
const LEAST_PX = 66;

/** Every mode in the air chosen: its first end with the range, a dotted thread to its second. */
export function ModesPicture({ look, camera, width, chosen }: Props) {
  const step = Math.max(LEAST_PX, Math.min(120, (width - RAIL) / look.modes.length));
  const wide = Math.max(width, RAIL + step * look.modes.length);
  const maxMin = longestShown(
    look.modes.flatMap((one) => [one.likely_min, one.high_min, one.empty.likely_min]),
  );
  const pxPerMin = HANG_PX / maxMin;
  const y = (minutes: number) => TOP + Math.min(minutes, maxMin) * pxPerMin;
  return (
    <div className="shelf-frame">
      <svg
        width={wide}
        height={TOP + HANG_PX + CAPTION_PX}
        role="img"
        aria-label={look.modes.map((one) => sentence(one, camera)).join(" ")}
        className="label"
      >
        <MinuteRail x0={RAIL} x1={wide} maxMin={maxMin} pxPerMin={pxPerMin} y={y} />
        <line x1={RAIL} x2={wide} y1={TOP} y2={TOP} stroke="var(--ink)" strokeWidth={5} />
        {look.modes.map((one, place) => (
          <ModeCord
            key={one.mode}
            look={one}
            x={RAIL + (place + 0.5) * step}
            y={y}
            maxMin={maxMin}
            name={nameOf(one, camera)}
            isChosen={one.mode === chosen}
          />
        ))}
      </svg>
    </div>
  );
}

interface CordProps {
  look: ModeLook;
  x: number;
  y: (minutes: number) => number;
  maxMin: number;
  name: string;
  isChosen: boolean;
}

function ModeCord({ look, x, y, maxMin, name, isChosen }: CordProps) {
  const goesOn = look.likely_min > maxMin;
  const bottom = y(look.likely_min);
  const second = look.end === "hot" ? look.empty.likely_min : look.hot.likely_min;
  return (
    <g>
      <text
        x={x}
        y={22}
        textAnchor="middle"
        fontSize={13}
        fontWeight={740}
        fill="var(--ink)"
        textDecoration={isChosen ? "underline" : undefined}
      >
        {name.slice(0, 11)}
      </text>
      <rect
        x={x - HALF}
        y={TOP + 3}
        width={2 * HALF}
        height={Math.max(1, bottom - TOP - 3)}
        fill="var(--rope)"
      />
      <CordEnd end={goesOn ? null : look.end} x={x} y={bottom} half={HALF + 3} />
      <Bracket x={x + HALF + 22} y0={y(look.low_min)} y1={y(look.high_min)} />
      {second != null && second > look.likely_min && second <= maxMin ? (
        <g stroke="var(--ink-2)">
          <line x1={x} x2={x} y1={bottom + 10} y2={y(second)} strokeDasharray="1 3" />
          <line x1={x - 7} x2={x + 7} y1={y(second)} y2={y(second)} strokeWidth={2} />
        </g>
      ) : null}
      <rect x={x - 27} y={bottom + 14} width={54} height={31} fill="var(--paper)" />
      <text
        x={x}
        y={bottom + 26}
        textAnchor="middle"
        fontSize={13}
        fontWeight={640}
        fill="var(--ink)"
      >
        {goesOn ? `${minutesText(maxMin)} +` : minutesText(look.likely_min)}
      </text>
      <text x={x} y={bottom + 41} textAnchor="middle" fontSize={12} fill="var(--ink-2)">
        {goesOn ? "no end" : END_WORDS[look.end]}
      </text>
    </g>
  );
}

function nameOf(look: ModeLook, camera: Camera): string {
  return camera.modes.find((one) => one.id === look.mode)?.name ?? look.mode;
}

function reach(minutes: ModeLook["hot"], what: string): string {
  if (minutes.likely_min == null)
    return minutes.low_min == null
      ? `never ${what}`
      : `${what} at ${minutesText(minutes.low_min)} at the earliest, likely never`;
  const high = minutes.high_min == null ? "or never" : `to ${minutesText(minutes.high_min)}`;
  return `${what} after ${minutesText(minutes.likely_min)} (${minutesText(minutes.low_min ?? 0)} ${high})`;
}

function sentence(look: ModeLook, camera: Camera): string {
  return `${nameOf(look, camera)}: ${reach(look.empty, "empty")}; ${reach(look.hot, "hot")}.`;
}

/** Minutes to empty and to hot of every mode, in words. */
export function ModesWords({ look, camera }: { look: Look; camera: Camera }) {
  return (
    <ul className="plain-list">
      {look.modes.map((one) => (
        <li key={one.mode}>{sentence(one, camera)}</li>
      ))}
    </ul>
  );
}
