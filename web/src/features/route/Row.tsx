import type { PointerEvent, ReactNode } from "react";
import type { Clock } from "../../domain/clock";
import { ACTIVITIES, airFromText, HANDS } from "../../domain/routeEdits";
import type { Item } from "../../domain/types";
import {
  degreesText,
  doubtText,
  metresText,
  minutesText,
  percentText,
  speedText,
  temperatureText,
} from "../../domain/units";
import { hourMarks, spaced } from "../../scale/ticks";
import type { RowPicture, Scales, StripLanes } from "./rowPictures";
import { Strip } from "./Strip";

interface Props {
  item: Item;
  path: string;
  picture: RowPicture;
  scales: Scales;
  lanes: StripLanes;
  clock: Clock | null;
  newDay: string | null;
  /** How much of this row has passed at the hand; null when the hand is elsewhere. */
  hand: number | null;
  onHand: (ms: number) => void;
  open: boolean;
  onToggle: () => void;
  /** The edge shared with the next leg, to be moved. */
  edge: ReactNode;
  children: ReactNode;
}

const HOUR_APART_PX = 17;
const START_APART_PX = 25; // the start stands below its line, hours about theirs
const LINE_PX = 19;

/** Lines of words that have room below a row's name. */
function linesIn(height: number): number {
  return Math.max(1, Math.floor((height - LINE_PX - 5) / LINE_PX));
}

/** One leg or stop: its stretch of the picture, its words, and its fields when opened. */
export function Row(props: Props) {
  const { item, path, picture, lanes, clock, newDay, hand, onHand, open, onToggle } = props;
  const told = picture.told;
  const follow = (event: PointerEvent<HTMLDivElement>) => {
    if (told === null) return;
    const box = event.currentTarget.getBoundingClientRect();
    const share = Math.min(1, Math.max(0, (event.clientY - box.top) / box.height));
    onHand(told.start_ms + share * (told.end_ms - told.start_ms - 1));
  };
  const times =
    clock === null || told === null
      ? ""
      : `${clock.time(told.start_ms)} to ${clock.time(told.end_ms)}`;
  return (
    <>
      {newDay === null ? null : <li className="route-day label">{newDay}</li>}
      <li className={`route-row ${item.kind} hands-${item.kind === "stop" ? "free" : item.hands}`}>
        <div className="route-line">
          {/* the pointer only moves the hand; the slider beside the plan does it for the keyboard */}
          <div
            className="route-picture"
            style={{ width: lanes.width, height: picture.height }}
            onPointerMove={follow}
            onPointerDown={follow}
          >
            <Strip item={item} picture={picture} scales={props.scales} lanes={lanes} />
            {clock === null || told === null ? null : (
              <Hours told={told} height={picture.height} clock={clock} />
            )}
            {hand === null ? null : (
              <div className="route-hand" style={{ top: `${String(hand * 100)}%` }} />
            )}
            {props.edge}
          </div>
          <div className="route-body" style={{ height: picture.height }}>
            <button
              type="button"
              className="plain route-open"
              aria-expanded={open}
              onClick={onToggle}
              data-path={path}
            >
              <span className="sr">{times}</span>
              <strong className="label">{item.name}</strong>
              <span
                className="route-words label"
                style={{ maxHeight: LINE_PX * linesIn(picture.height) }}
              >
                {wordsOf(item).map((one) => (
                  <span key={one}>{one}</span>
                ))}
              </span>
            </button>
          </div>
        </div>
        {open ? <div className="route-fields">{props.children}</div> : null}
      </li>
    </>
  );
}

/** The clock down the row: its start, and the hours that have room. */
function Hours({
  told,
  height,
  clock,
}: {
  told: NonNullable<RowPicture["told"]>;
  height: number;
  clock: Clock;
}) {
  const length = Math.max(1, told.end_ms - told.start_ms);
  const y = (ms: number) => ((ms - told.start_ms) / length) * height;
  const minute = Number(clock.time(told.start_ms).slice(-2));
  const hours = hourMarks(told.start_ms, told.end_ms - 1, minute).filter(
    (ms) => y(ms) >= START_APART_PX && height - y(ms) >= HOUR_APART_PX,
  );
  return (
    <div className="route-clock label" aria-hidden="true">
      <b style={{ top: 0 }}>{clock.time(told.start_ms)}</b>
      {spaced(hours, y, HOUR_APART_PX).map((ms) => (
        <span key={ms} style={{ top: `${String(((ms - told.start_ms) / length) * 100)}%` }}>
          {clock.time(ms)}
        </span>
      ))}
    </div>
  );
}

/** What is told of a row, what matters most first; what has no room is left out whole. */
function wordsOf(item: Item): string[] {
  const warm =
    item.temp_start_c === item.temp_end_c
      ? temperatureText(item.temp_start_c)
      : `${degreesText(item.temp_start_c)} to ${temperatureText(item.temp_end_c)}`;
  const doubt = doubtText(item.temp_doubt_k);
  const from = airFromText(item);
  const typed = item.on_way != null && item.timed_by === "hand" ? " typed" : "";
  const length = `${minutesText(item.duration_s / 60)}${typed}`;
  const sun = item.sun_share > 0 ? `sun ${percentText(item.sun_share)}` : "";
  const gloves = item.gloves ? "gloves" : "";
  if (item.kind === "stop") {
    const asleep = item.asleep
      ? `asleep ${minutesText(item.asleep.duration_s / 60)}`
      : "hands free";
    const socket = item.socket == null ? "" : `socket ${String(item.socket.watts)} W`;
    return [length, warm + doubt, asleep, socket, sun, gloves, from].filter(Boolean);
  }
  const climb =
    item.height_start_m != null && item.height_end_m != null
      ? climbText(item.height_end_m - item.height_start_m)
      : "";
  return [
    length,
    ACTIVITIES[item.activity],
    climb,
    `hands ${HANDS[item.hands]}`,
    warm + doubt,
    `flow ${speedText(item.air_mps)}`,
    sun,
    gloves,
    from,
  ].filter(Boolean);
}

function climbText(metres: number): string {
  if (Math.abs(metres) < 1) return "level";
  return `${metres > 0 ? "▲" : "▼"} ${metresText(Math.abs(metres))}`;
}
