import { memo, type ReactNode } from "react";
import type { Clock } from "../domain/clock";
import { rateAt, roomMinutes } from "../domain/minutesLeft";
import { writtenAt } from "../domain/written";
import { batteryIn, givesOutMs, momentOf } from "../domain/moment";
import type { Camera, PlanDocument, Rehearsal } from "../domain/types";
import { gigabytesText, lastsText, percentText } from "../domain/units";
import type { LaneAt, Lanes } from "../scale/lanes";

interface HeadsProps {
  document: PlanDocument;
  rehearsal: Rehearsal;
  clock: Clock;
  lanes: Lanes;
  handMs: number;
  onCamera: (camera: string) => void;
  /** The hand's own control. */
  children: ReactNode;
}

const WORDS_FROM_PX = 84;

/** Camera heads: what is left of each at the hand's moment, in words. */
export const Heads = memo(function Heads(props: HeadsProps) {
  const { document, rehearsal, lanes, handMs, children } = props;
  const laid =
    rehearsal.items.find((one) => one.start_ms <= handMs && handMs < one.end_ms) ??
    rehearsal.items.at(-1);
  return (
    <div className="heads label" style={{ width: lanes.width }}>
      <div className="heads-here" style={{ width: lanes.firstX - 6 }}>
        {children}
        {lanes.phone || laid === undefined ? null : (
          <span>
            {laid.name}, hands {laid.hands_free ? "free" : "not free"}
          </span>
        )}
      </div>
      {document.kit.cameras.map((camera, place) => {
        const lane = lanes.at[place];
        return lane === undefined ? null : (
          <Head key={camera.id} {...props} camera={camera} lane={lane} />
        );
      })}
    </div>
  );
});

function Head({
  document,
  rehearsal,
  clock,
  lanes,
  handMs,
  onCamera,
  camera,
  lane,
}: HeadsProps & { camera: Camera; lane: LaneAt }) {
  const inset = lanes.phone || lane.idle ? 2 : lane.spine;
  return (
    <div
      className={lane.idle ? "head idle" : "head"}
      style={{ left: lane.x + inset, width: lane.w - inset }}
    >
      <button
        type="button"
        className="plain head-name"
        onClick={() => onCamera(camera.id)}
        title={`How ${camera.name} is carried`}
      >
        {camera.name}
      </button>
      {lane.idle ? null : (
        <>
          <div className="head-now">{leftText(rehearsal, clock, camera, handMs, lane.w)}</div>
          {lanes.phone ? null : (
            <div className="head-now">{roomText(document, rehearsal, camera, handMs, lane.w)}</div>
          )}
        </>
      )}
    </div>
  );
}

/** "62 %, lasts to 12:57"; "no battery"; never a charge of nothing. */
function leftText(
  rehearsal: Rehearsal,
  clock: Clock,
  camera: Camera,
  handMs: number,
  width: number,
): string {
  const result = rehearsal.cameras.find((one) => one.camera === camera.id);
  const moment = result ? momentOf(result.course, handMs) : null;
  if (moment === null || batteryIn(rehearsal, camera.id, handMs) === undefined)
    return width < WORDS_FROM_PX ? "none" : "no battery";
  if (moment.charge < 0.005) return "empty";
  const ends = givesOutMs(rehearsal, camera.id, handMs);
  const share = percentText(moment.charge);
  if (width < WORDS_FROM_PX) return share;
  return ends === null ? `${share} left` : `${share}, to ${clock.time(ends)}`;
}

/** "101 GB, 2 h 14": room on the card, and how long that is in the mode that runs, or runs next. */
function roomText(
  document: PlanDocument,
  rehearsal: Rehearsal,
  camera: Camera,
  handMs: number,
  width: number,
): string {
  const store = writtenAt(document, rehearsal, camera, handMs);
  if (store === undefined) return "no card";
  const left = Math.max(0, store.size - store.level);
  const room = gigabytesText(left);
  if (width < WORDS_FROM_PX) return room;
  const minutes = roomMinutes(rateAt(document, rehearsal, [camera.id], handMs), left);
  return minutes === null ? `${room} of room` : `${room}, ${lastsText(minutes)}`;
}
