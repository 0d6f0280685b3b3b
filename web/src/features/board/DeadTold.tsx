import type { Clock } from "../../domain/clock";
import { type Dead, withoutText } from "../../domain/gaps";
import { nameOfCamera } from "../../domain/moment";
import type { PlanDocument } from "../../domain/types";

/** What every gap in words has: whose trip it is, and the way to its place. */
export interface ToldProps {
  document: PlanDocument;
  clock: Clock;
  goTo: () => void;
  style?: { left: number; top: number; width: number; height: number };
}

/** A thing with a battery that is dead while it is wanted, told as a gap is; it leads to its place. */
export function DeadTold({ document, clock, goTo, dead, style }: ToldProps & { dead: Dead }) {
  const { name, serves } = dead.gear;
  const whose = serves === null ? "" : ` with ${nameOfCamera(document, serves)}`;
  const what = `${clock.time(dead.gap.start_ms)} ${name} empty, ${withoutText(dead)}${whose}`;
  return (
    <button type="button" className="plain gap-told dead" title={what} style={style} onClick={goTo}>
      <span className="gap-what">{what}</span>
      <span className="gap-cure">charge it before, or carry a spare</span>
    </button>
  );
}
