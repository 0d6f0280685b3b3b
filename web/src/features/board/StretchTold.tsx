import { memo } from "react";
import { Link } from "react-router";
import type { Cell } from "../../board/Drawing";
import type { Clock } from "../../domain/clock";
import { nameOfCamera } from "../../domain/moment";
import type { PlanDocument, Rehearsal } from "../../domain/types";
import { countText, gigabytesText, minutesText, tidyText } from "../../domain/units";
import { useMeasured } from "./useMeasured";

interface Props {
  document: PlanDocument;
  rehearsal: Rehearsal;
  clock: Clock;
  cell: Cell;
}

/** What a stretch comes to beside its minutes: frames and film; who catches what comes unasked. */
export const StretchTold = memo(function StretchTold(props: Props) {
  const { document, rehearsal, clock, cell } = props;
  const number = document.plan.assignments.findIndex(
    (one) => one.camera === cell.camera && one.item === cell.item,
  );
  const lapse = rehearsal.lapses.find((one) => one.assignment === number);
  const reaches = rehearsal.reaches.filter((one) => one.item === cell.item);
  const moments = [...new Set(reaches.map((one) => one.moment))];
  const opens = windowsText(document, rehearsal, clock, cell, number);
  const measured = useMeasured(document, number);
  if (lapse === undefined && moments.length === 0 && opens === null && measured === undefined)
    return null;
  return (
    <div className="stretch-told label">
      {measured === undefined ? null : (
        <p>
          In this air your runs say {minutesText(measured.minutes)}, {measured.end}; the kit, and
          this rehearsal,{" "}
          {measured.kit_minutes == null ? "no end" : minutesText(measured.kit_minutes)}.{" "}
          <Link to="../bench">Take them on the bench</Link>.
        </p>
      )}
      {opens === null ? null : <p>{opens}</p>}
      {lapse ? (
        <p>
          {countText(lapse.frames, "frame")}
          {lapse.frames < lapse.asked ? ` of ${String(lapse.asked)}` : ""}: {tidyText(lapse.film_s)}{" "}
          s of film, {gigabytesText(lapse.bytes)}, {countText(lapse.files, "file")};{" "}
          {tidyText(lapse.times_as_fast)} times as fast.
        </p>
      ) : null}
      {moments.map((moment) => {
        const rows = reaches.filter((one) => one.moment === moment);
        const [best] = rows;
        const mine = rows.find((one) => one.camera === cell.camera);
        if (best === undefined) return null;
        return (
          <p key={moment}>
            For {moment} that comes unasked, reach for {nameOfCamera(document, best.camera)}: it
            films {tidyText(best.after_s)} s after, the last {tidyText(best.caught_s)} of{" "}
            {tidyText(best.of_s)} s.
            {mine !== undefined && mine !== best
              ? ` ${nameOfCamera(document, mine.camera)} would catch ${tidyText(mine.caught_s)} s.`
              : ""}
          </p>
        );
      })}
    </div>
  );
});

const MOST_TOLD = 4;

/** When windows are open there, by the clock: "last half hour of light" is 20:41 to 21:11. */
function windowsText(
  document: PlanDocument,
  rehearsal: Rehearsal,
  clock: Clock,
  cell: Cell,
  number: number,
): string | null {
  if (document.plan.assignments[number]?.pattern.kind !== "windows") return null;
  const result = rehearsal.cameras.find((one) => one.camera === cell.camera);
  const asked = [...(result?.filmed ?? []), ...(result?.gaps ?? [])]
    .filter((one) => one.assignment === number)
    .sort((a, b) => a.start_ms - b.start_ms)
    .reduce<{ start_ms: number; end_ms: number }[]>((spans, one) => {
      const last = spans.at(-1);
      if (last !== undefined && last.end_ms >= one.start_ms)
        last.end_ms = Math.max(last.end_ms, one.end_ms);
      else spans.push({ start_ms: one.start_ms, end_ms: one.end_ms });
      return spans;
    }, []);
  if (asked.length === 0) return "Its windows do not open here.";
  const told = asked
    .slice(0, MOST_TOLD)
    .map((one) => `${clock.full(one.start_ms)} to ${clock.time(one.end_ms)}`);
  const more = asked.length - told.length;
  return `Open ${told.join("; ")}${more > 0 ? ` and ${String(more)} more times` : ""}.`;
}
