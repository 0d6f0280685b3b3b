import { memo } from "react";
import type { Cell } from "../../board/Drawing";
import { nameOfCamera } from "../../domain/moment";
import type { PlanDocument, Rehearsal } from "../../domain/types";
import { countText, gigabytesText, tidyText } from "../../domain/units";

interface Props {
  document: PlanDocument;
  rehearsal: Rehearsal;
  cell: Cell;
}

/** What a stretch comes to beside its minutes: frames and film; who catches what comes unasked. */
export const StretchTold = memo(function StretchTold({ document, rehearsal, cell }: Props) {
  const number = document.plan.assignments.findIndex(
    (one) => one.camera === cell.camera && one.item === cell.item,
  );
  const lapse = rehearsal.lapses.find((one) => one.assignment === number);
  const reaches = rehearsal.reaches.filter((one) => one.item === cell.item);
  const moments = [...new Set(reaches.map((one) => one.moment))];
  if (lapse === undefined && moments.length === 0) return null;
  return (
    <div className="stretch-told label">
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
