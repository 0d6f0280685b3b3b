import { valueAt } from "../../domain/carried";
import type { Clock } from "../../domain/clock";
import { withoutText } from "../../domain/gaps";
import type { PlanDocument, Rehearsal } from "../../domain/types";
import { percentText } from "../../domain/units";

interface Props {
  document: PlanDocument;
  rehearsal: Rehearsal;
  clock: Clock;
  handMs: number;
}

/** Things with a battery at the hand's moment: what is left in them, and when they die. */
export function GearTold({ document, rehearsal, clock, handMs }: Props) {
  const names = new Map(document.kit.cameras.map((one) => [one.id, one.name]));
  if (rehearsal.gear.length === 0) return null;
  return (
    <ul className="units" aria-label="Things with a battery">
      {rehearsal.gear.map((one) => {
        const left = valueAt(one.t_ms, one.charge, handMs);
        const serves = names.get(one.serves ?? "");
        const ahead = one.gaps.find((gap) => gap.end_ms > handMs);
        const words = [
          serves === undefined ? "" : `with ${serves}`,
          ahead === undefined
            ? ""
            : `dead ${clock.full(ahead.start_ms)}, ${withoutText({ gear: one, gap: ahead })}`,
        ];
        return (
          <li
            key={one.id}
            className={ahead === undefined ? "unit gear-unit" : "unit gear-unit dies"}
          >
            <b>{one.name}</b>
            <i>
              <i style={{ width: percentText(left).replace(" ", "") }} />
            </i>
            <span>{percentText(left)}</span>
            <span className="unit-where">{words.filter(Boolean).join(", ")}</span>
          </li>
        );
      })}
    </ul>
  );
}
