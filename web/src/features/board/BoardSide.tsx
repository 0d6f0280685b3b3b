import { memo } from "react";
import type { Shown } from "../../api/useRehearsal";
import type { Cell } from "../../board/Drawing";
import type { Clock } from "../../domain/clock";
import type { PlanDocument, Rehearsal, ServingTold } from "../../domain/types";
import { Angles } from "./Angles";
import { Carried } from "./Carried";
import type { Curing } from "./Cures";
import { Legend } from "./Legend";
import { Lost } from "./Lost";
import { Margins } from "./Margins";
import { Trouble } from "./Trouble";
import type { BestCure } from "./useBestCures";

interface Props {
  later: { document: PlanDocument; rehearsal: Rehearsal };
  present: Shown;
  clock: Clock;
  curing: Curing;
  serving: ServingTold | null;
  best: ReadonlyMap<string, BestCure>;
  handMs: number;
  goTo: (cell: Cell, ms: number) => void;
  openCamera: (camera: string) => void;
  openPlan: () => void;
}

/** What is carried at the hand's moment, what is not filmed, what else to know; scrolls by itself. */
export function BoardSide(props: Props) {
  const { later, present, clock, serving, handMs, goTo, openPlan } = props;
  return (
    <div className="board-side">
      <aside aria-label="What you carry">
        <Carried {...later} clock={clock} handMs={handMs} />
      </aside>
      <Trouble
        document={present.document}
        rehearsal={present.rehearsal}
        clock={clock}
        goTo={goTo}
        openCamera={props.openCamera}
        openPlan={openPlan}
        curing={props.curing}
        best={props.best}
      />
      <Lost {...later} clock={clock} handMs={handMs} />
      <Whole {...later} serving={serving} goTo={goTo} />
      <p>
        <button type="button" className="plain link" aria-haspopup="dialog" onClick={openPlan}>
          For the whole trip
        </button>
      </p>
      <p className="caution">
        Tumbrel advises on filming kit; it is no judge of whether a trip is safe. Touch cameras only
        where hands are free. Lithium cells: no swollen, wet or crushed ones; cover spare terminals.
        Local law, event and carrier rules and makers’ instructions come first.
      </p>
    </div>
  );
}

/** Of the whole trip, on wish: what is left least, minutes by angle, how a rope is read. */
const Whole = memo(function Whole({
  document,
  rehearsal,
  serving,
  goTo,
}: Props["later"] & Pick<Props, "serving" | "goTo">) {
  return (
    <>
      <details className="side-more">
        <summary>Least left over the trip</summary>
        <Margins document={document} rehearsal={rehearsal} />
      </details>
      <details className="side-more">
        <summary>Angles</summary>
        <Angles document={document} rehearsal={rehearsal} serving={serving} goTo={goTo} />
      </details>
      <details className="side-more">
        <summary>How to read a rope</summary>
        <Legend />
      </details>
    </>
  );
});
