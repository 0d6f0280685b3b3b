import type { ReactNode } from "react";
import { ACTIVITIES, HANDS } from "../../domain/routeEdits";
import type { Item } from "../../domain/types";
import { degreesText, minutesText, percentText } from "../../domain/units";
import type { RowPicture } from "./rowPictures";

interface Props {
  item: Item;
  path: string;
  picture: RowPicture | undefined;
  times: string;
  newDay: string | null;
  open: boolean;
  onToggle: () => void;
  children: ReactNode;
}

/** One leg or stop: its stretch of the picture, its words, and its fields when opened. */
export function Row({ item, path, picture, times, newDay, open, onToggle, children }: Props) {
  return (
    <>
      {newDay === null ? null : <li className="route-day label">{newDay}</li>}
      <li className={`route-row ${item.kind} hands-${item.kind === "stop" ? "free" : item.hands}`}>
        {picture ? <Strip picture={picture} stop={item.kind === "stop"} /> : null}
        <div className="route-body" style={{ minHeight: picture?.height }}>
          <button
            type="button"
            className="plain route-open"
            aria-expanded={open}
            onClick={onToggle}
            data-path={path}
          >
            <span className="route-times label">{times}</span>
            <strong className="label">{item.name}</strong>
            <span className="route-words label">{wordsOf(item)}</span>
          </button>
          {open ? <div className="route-fields">{children}</div> : null}
        </div>
      </li>
    </>
  );
}

function wordsOf(item: Item): string {
  const warm =
    item.temp_start_c === item.temp_end_c
      ? `${degreesText(item.temp_start_c)}C`
      : `${degreesText(item.temp_start_c)} to ${degreesText(item.temp_end_c)}C`;
  const doubt = item.temp_doubt_k > 0 ? ` ± ${String(Math.round(item.temp_doubt_k))}` : "";
  const from = item.air_from === "" ? "" : `air by ${item.air_from}`;
  const length = minutesText(item.duration_s / 60);
  const sun = item.sun_share > 0 ? `sun ${percentText(item.sun_share)}` : "";
  const gloves = item.gloves ? "gloves" : "";
  if (item.kind === "stop") {
    const asleep = item.asleep
      ? `asleep ${minutesText(item.asleep.duration_s / 60)}`
      : "hands free";
    return [length, warm + doubt, asleep, sun, gloves, from].filter(Boolean).join(" · ");
  }
  const climb =
    item.height_start_m != null && item.height_end_m != null
      ? climbText(item.height_end_m - item.height_start_m)
      : "";
  return [
    length,
    ACTIVITIES[item.activity],
    climb,
    warm + doubt,
    `air ${String(item.air_mps)} m/s`,
    sun,
    `hands ${HANDS[item.hands]}`,
    gloves,
    from,
  ]
    .filter(Boolean)
    .join(" · ");
}

function climbText(metres: number): string {
  if (Math.abs(metres) < 1) return "level";
  return `${metres > 0 ? "▲" : "▼"} ${String(Math.abs(Math.round(metres)))} m`;
}

const LIGHTS = { night: "var(--night)", twilight: "var(--twilight)", day: "var(--paper)" };
const WIDE = { light: 8, ground: 96, warmth: 50 };

function Strip({ picture, stop }: { picture: RowPicture; stop: boolean }) {
  const { ground, warmth, light } = picture;
  const groundX = WIDE.light + 4;
  const at = (share: number) => groundX + 8 + share * (WIDE.ground - 12);
  const warmX = groundX + WIDE.ground + 10;
  const warm = (share: number) => warmX + 4 + share * (WIDE.warmth - 8);
  return (
    <div className="route-strip">
      <svg
        viewBox={`0 0 ${String(warmX + WIDE.warmth)} 100`}
        preserveAspectRatio="none"
        aria-hidden="true"
      >
        {light.map((one) => (
          <rect
            key={one.from}
            x={0}
            y={one.from * 100}
            width={WIDE.light}
            height={(one.to - one.from) * 100}
            fill={LIGHTS[one.kind]}
          />
        ))}
        <path
          d={`M0.5 0V100M${String(WIDE.light)} 0V100`}
          stroke="var(--ink-2)"
          strokeWidth={1}
          vectorEffect="non-scaling-stroke"
        />
        {ground === null ? null : (
          <path
            d={`M${String(groundX)} 0H${String(at(ground[0]))}L${String(at(ground[1]))} 100H${String(groundX)}Z`}
            fill="var(--rope-ground)"
          />
        )}
        {ground === null ? null : (
          <path
            d={`M${String(at(ground[0]))} 0L${String(at(ground[1]))} 100`}
            stroke="var(--rope)"
            strokeWidth={stop ? 2.4 : 1.4}
            vectorEffect="non-scaling-stroke"
          />
        )}
        <path
          d={`M${String(warm(warmth[0]))} 0L${String(warm(warmth[1]))} 100`}
          stroke="var(--ember)"
          strokeWidth={5}
          vectorEffect="non-scaling-stroke"
          fill="none"
        />
      </svg>
    </div>
  );
}
