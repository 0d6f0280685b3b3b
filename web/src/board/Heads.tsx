import { memo, type ReactNode } from "react";
import { momentOf } from "../domain/moment";
import { ANGLES, type PlanDocument, type Rehearsal } from "../domain/types";
import { degreesText, gigabytesText, minutesText, percentText } from "../domain/units";
import { cameraPlan } from "../domain/edits";
import type { Lanes } from "../scale/lanes";

interface HeadsProps {
  document: PlanDocument;
  rehearsal: Rehearsal;
  lanes: Lanes;
  handMs: number;
  onCamera: (camera: string) => void;
  /** The hand's own control. */
  children: ReactNode;
}

/** Narrower heads leave the room to the card columns. */
const ROOM_FROM_PX = 120;

/** Camera heads, and the fixed row that reads out the hand's moment. */
export const Heads = memo(function Heads({
  document,
  rehearsal,
  lanes,
  handMs,
  onCamera,
  children,
}: HeadsProps) {
  const laid =
    rehearsal.items.find((one) => one.start_ms <= handMs && handMs < one.end_ms) ??
    rehearsal.items.at(-1);
  return (
    <div className="heads label" style={{ width: lanes.width }}>
      <div className="heads-here" style={{ width: lanes.firstX - 6 }}>
        {children}
        {lanes.phone ? null : (
          <span>
            {laid?.name ?? ""}
            {laid ? `, hands ${laid.hands_free ? "free" : "not free"}` : ""}
          </span>
        )}
      </div>
      {document.kit.cameras.map((camera, place) => {
        const result = rehearsal.cameras.find((one) => one.camera === camera.id);
        const moment = result ? momentOf(result.course, handMs) : null;
        const powered = rehearsal.batteries.some((one) =>
          one.stays.some(
            (stay) => stay.place === camera.id && stay.start_ms <= handMs && handMs <= stay.end_ms,
          ),
        );
        const here = document.plan.assignments.find(
          (one) => one.camera === camera.id && one.item === laid?.id,
        );
        const angle = here?.angle ?? cameraPlan(document.plan, camera.id).angle;
        const store = rehearsal.cards.find((one) =>
          one.stays.some((stay) => stay.place === camera.id && stay.start_ms <= handMs),
        );
        const room = store && moment ? store.size - moment.usedBytes : 0;
        return (
          <div
            key={camera.id}
            className="head"
            style={{
              left: lanes.firstX + place * lanes.lane + (lanes.phone ? 2 : lanes.spine),
              width: lanes.lane - (lanes.phone ? 4 : lanes.spine),
            }}
          >
            <button
              type="button"
              className="plain head-name"
              onClick={() => onCamera(camera.id)}
              title={`How ${camera.name} is carried`}
            >
              {camera.name}
            </button>
            {lanes.phone ? null : (
              <div className="head-what">
                {[camera.model, ANGLES[angle]].filter(Boolean).join(" · ")}
              </div>
            )}
            {lanes.phone || !result ? null : (
              <div className="head-sum">
                {lanes.hands ? "" : "films "}
                {minutesText(result.minutes.filmed)} of {minutesText(result.minutes.asked)}
              </div>
            )}
            {moment ? (
              <div className="head-now">
                <b>{powered ? percentText(moment.charge) : "no battery"}</b>{" "}
                {lanes.phone || !powered ? (
                  ""
                ) : (
                  <b>{moment.state === 0 ? "off" : degreesText(moment.bodyC)}</b>
                )}{" "}
                <span>{lanes.lane < ROOM_FROM_PX ? "" : gigabytesText(room)}</span>
              </div>
            ) : null}
          </div>
        );
      })}
      {lanes.phone ? null : <Ticks lanes={lanes} count={document.kit.cameras.length} />}
    </div>
  );
});

/** 0, 50 and 100 per cent under each head. */
function Ticks({ lanes, count }: { lanes: Lanes; count: number }) {
  return (
    <svg className="head-ticks" width={lanes.width} height={8} aria-hidden="true">
      {Array.from({ length: count }, (_, place) => {
        const x = lanes.firstX + place * lanes.lane + lanes.spine;
        return [0, 0.5, 1].map((share) => (
          <line
            key={`${String(place)}-${String(share)}`}
            x1={x + lanes.rope * share}
            x2={x + lanes.rope * share}
            y1={0}
            y2={8}
            stroke="var(--rule)"
          />
        ));
      })}
    </svg>
  );
}
