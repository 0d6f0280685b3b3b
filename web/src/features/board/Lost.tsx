import { memo } from "react";
import { worstLoss } from "../../domain/carried";
import type { Clock } from "../../domain/clock";
import type { PlanDocument, Rehearsal } from "../../domain/types";
import { countText, expectedText, minutesText } from "../../domain/units";

interface Props {
  document: PlanDocument;
  rehearsal: Rehearsal;
  clock: Clock;
  handMs: number;
}

const MINUTE_MS = 60_000;

/** What would go with one card now, and what comes home of the whole trip. */
export const Lost = memo(function Lost({ document, rehearsal, clock, handMs }: Props) {
  const worst = worstLoss(rehearsal, handMs);
  const names = new Map(
    [...rehearsal.cards, ...document.kit.drives, ...document.kit.cameras].map((one) => [
      one.id,
      one.name,
    ]),
  );
  const largest = rehearsal.largest_loss;
  return (
    <section aria-label="If one card were lost">
      <h2>If one card were lost now</h2>
      <p className="loss-line">
        {worst.ms > 0
          ? `${names.get(worst.place) ?? worst.place}: ${minutesText(worst.ms / MINUTE_MS)} of footage that exist nowhere else.`
          : "Nothing exists in one place only at this moment."}
      </p>
      {largest ? (
        <p className="loss-line">
          Most of the trip: {largest.name}, {minutesText(largest.filmed_ms / MINUTE_MS)}, from{" "}
          {clock.full(Math.min(largest.at_ms, rehearsal.duration_ms))}.
        </p>
      ) : null}
      <p className="loss-line">
        The whole trip: {minutesText(footageMin(rehearsal))} of footage in{" "}
        {countText(rehearsal.files, "file")}; the work at home is about{" "}
        {minutesText(rehearsal.looking_through_ms / MINUTE_MS)}
        {homeText(rehearsal.home)}.
      </p>
      <Caught rehearsal={rehearsal} document={document} />
    </section>
  );
});

/** Where all that is filmed is kept as it was, it is what the verdict calls filmed, to the minute. */
function footageMin({ footage_ms, verdict }: Rehearsal): number {
  const same = Math.abs(footage_ms - verdict.filmed_ms) < MINUTE_MS;
  return same ? verdict.minutes.filmed : footage_ms / MINUTE_MS;
}

/** Of what the work at home consists, where the person has said it. */
function homeText(home: Rehearsal["home"]): string {
  if (!home.own) return " of looking through (assumed)";
  const parts = [`${minutesText(home.looking_ms / MINUTE_MS)} of looking through`];
  if (home.clips_ms > 0)
    parts.push(`${minutesText(home.clips_ms / MINUTE_MS)} for ${countText(home.clips, "clip")}`);
  if (home.cameras_ms > 0)
    parts.push(
      `${minutesText(home.cameras_ms / MINUTE_MS)} for ${countText(home.cameras, "camera")}`,
    );
  return `: ${parts.join(", ")}`;
}

/** Moments, and how many seconds of them are in the footage that is kept. */
function Caught({ rehearsal, document }: Pick<Props, "rehearsal" | "document">) {
  if (rehearsal.moments.length === 0) return null;
  const itemName = (id: string) => document.trip.items.find((one) => one.id === id)?.name ?? id;
  return (
    <>
      <h3>Moments caught</h3>
      <ul className="caught label">
        {rehearsal.moments.map((one) => (
          <li key={`${one.item} ${one.moment}`}>
            <b>
              {Math.round(one.caught_s)} of {Math.round(one.of_s)} s
            </b>{" "}
            {one.moment}, {itemName(one.item)} ({expectedText(one.whole)} of {one.count} whole)
          </li>
        ))}
      </ul>
    </>
  );
}
