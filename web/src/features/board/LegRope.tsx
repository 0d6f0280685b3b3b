import { Ghost } from "../../board/Ghost";
import { Lane } from "../../board/Lane";
import { Textures } from "../../board/Textures";
import { dyingWith } from "../../domain/gaps";
import type { Camera, PlanDocument, Rehearsal } from "../../domain/types";
import { type Band, elastic } from "../../scale/elastic";
import type { LaneAt } from "../../scale/lanes";

interface Props {
  document: PlanDocument;
  rehearsal: Rehearsal;
  ghost: Rehearsal | null;
  band: Band;
  camera: Camera;
}

const LANE: LaneAt = { x: 0, w: 164, rope: 120, spine: 16, idle: false };
const HIGH = 120;
const PACE = 0.3;

/** One camera's rope on one leg, 120 px wide. */
export function LegRope({ document, rehearsal, ghost, band, camera }: Props) {
  const window = { startMs: band.startMs, endMs: band.endMs };
  const scale = elastic(rehearsal.items, window, "day", new Map([[band.id, HIGH]]), PACE);
  const result = rehearsal.cameras.find((one) => one.camera === camera.id);
  const then = ghost?.cameras.find((one) => one.camera === camera.id);
  if (result === undefined) return null;
  const inside = (one: { stays: readonly { place: string }[] }) =>
    one.stays.some((stay) => stay.place === camera.id);
  return (
    <svg width={LANE.w} height={scale.height + 2} aria-hidden="true">
      <Textures />
      <Lane
        camera={camera}
        result={result}
        assignments={document.plan.assignments.filter((one) => one.camera === camera.id)}
        batteries={rehearsal.batteries.filter(inside)}
        stores={rehearsal.cards.filter(inside)}
        dying={dyingWith(rehearsal, camera.id)}
        scale={scale}
        lane={LANE}
        window={window}
        laid={rehearsal.items}
        phone={false}
      />
      {then === undefined || then === result ? null : (
        <Ghost now={result} then={then} scale={scale} lane={LANE} window={window} />
      )}
    </svg>
  );
}
