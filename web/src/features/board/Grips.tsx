import { memo } from "react";
import type { Cell } from "../../board/Drawing";
import type { Clock } from "../../domain/clock";
import type { TripAndPlan } from "../../domain/edits";
import type { PlanDocument, Rehearsal } from "../../domain/types";
import type { Elastic } from "../../scale/elastic";
import type { Lanes } from "../../scale/lanes";
import { MoveGrips } from "./MoveGrips";
import { StretchGrips } from "./StretchGrips";
import { TimeGrips } from "./TimeGrips";
import type { Hand } from "./useHand";
import type { Drafting } from "./useTrial";

export interface GripsProps {
  document: PlanDocument;
  rehearsal: Rehearsal;
  clock: Clock;
  scale: Elastic;
  lanes: Lanes;
  /** What is kept, without what is being tried. */
  present: TripAndPlan;
  drafting: Drafting;
  hand: Pick<Hand, "move">;
  /** Where fingers may pull; elsewhere they scroll. */
  selected: Cell | null;
}

/** All that can be pulled on the board: ends of stretches, the hands' work, lengths of time. */
export const Grips = memo(function Grips(props: GripsProps) {
  return (
    <div className="grips" role="group" aria-label="What can be moved">
      <TimeGrips {...props} />
      <StretchGrips {...props} />
      <MoveGrips {...props} />
    </div>
  );
});
