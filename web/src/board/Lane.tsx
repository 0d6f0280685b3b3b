import { memo } from "react";
import type { Assignment, Camera, CameraResult, GearTold, LaidItem, Pooled } from "../domain/types";
import type { Elastic } from "../scale/elastic";
import type { LaneAt } from "../scale/lanes";
import { Frost, Heat } from "./Heat";
import { BatteryNames, CardLine } from "./LaneUnits";
import { Dead, Gaps } from "./Gaps";
import { Idle, Stretch } from "./Stretch";

export interface LaneProps {
  camera: Camera;
  result: CameraResult;
  assignments: readonly Assignment[];
  batteries: readonly Pooled[];
  stores: readonly Pooled[];
  /** Things with a battery that serve this camera and die. */
  dying?: readonly GearTold[];
  scale: Elastic;
  lane: LaneAt;
  window: { startMs: number; endMs: number };
  laid: readonly LaidItem[];
  /** On a phone the work's numbers stand on the rope where a battery's name would. */
  phone: boolean;
  /** Rope, heat, frost and gaps only: neither card nor words, for ropes that stand close. */
  bare?: boolean;
}

/** What all parts of a lane draw by: its own figures, and where its spine stands. */
export type LanePart = LaneProps & { spineX: number };

/** One camera's rope, heat, card and gaps over the window; drawn anew only when they change. */
export const Lane = memo(function Lane(props: LaneProps) {
  const { lane, scale, bare = false } = props;
  const spineX = lane.x + lane.spine;
  const part = { ...props, spineX };
  return (
    <g>
      <line
        x1={spineX}
        x2={spineX}
        y1={0}
        y2={scale.height}
        stroke={lane.idle ? "var(--rule)" : "var(--ink)"}
        strokeWidth={1}
      />
      <Heat {...part} />
      {scale.bands.map((band) => {
        const assignment = props.assignments.find((one) => one.item === band.id);
        return assignment ? (
          <Stretch key={band.id} {...part} band={band} assignment={assignment} />
        ) : (
          <Idle key={band.id + String(band.startMs)} {...part} band={band} />
        );
      })}
      <Frost {...part} />
      {bare ? null : <CardLine {...part} />}
      <Dead {...part} />
      <Gaps {...part} />
      {bare ? null : <BatteryNames {...part} />}
    </g>
  );
}, isSame);

/** Whether all that a lane draws is the same; lists one by one, as they are made anew. */
function isSame(old: LaneProps, now: LaneProps): boolean {
  return (Object.keys(old) as (keyof LaneProps)[]).every((key) => sameIn(old[key], now[key]));
}

function sameIn(before: unknown, after: unknown): boolean {
  if (before === after) return true;
  if (!Array.isArray(before) || !Array.isArray(after) || before.length !== after.length)
    return false;
  return before.every((one, place) => one === after[place]);
}
