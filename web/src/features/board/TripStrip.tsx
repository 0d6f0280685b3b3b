import { SmallBoard } from "../../board/SmallBoard";
import type { Clock, DayWindow } from "../../domain/clock";
import { beginsIn, lossesInOrder } from "../../domain/moment";
import type { PlanDocument, Rehearsal } from "../../domain/types";
import { countText } from "../../domain/units";
import type { Fold } from "../../scale/elastic";

interface Props {
  document: PlanDocument;
  rehearsal: Rehearsal;
  clock: Clock;
  days: readonly DayWindow[];
  dayNumber: number;
  fold: Fold;
  onDay: (number: number) => void;
  onFold: (fold: Fold) => void;
}

/** The trip as small boards, a day each; a click or key goes there. The last is all its stops. */
export function TripStrip(props: Props) {
  const { document, rehearsal, clock, days, dayNumber, fold, onDay, onFold } = props;
  const losses = lossesInOrder(rehearsal);
  return (
    <div className="trip-strip label" role="group" aria-label="Day">
      {days.map((day) => {
        const gaps = losses.filter((one) => beginsIn(one.start_ms, day)).length;
        const here = fold === "day" && day.number === dayNumber;
        const name = clock.date(day.startMs).replace(/ \p{L}+$/u, "");
        return (
          <button
            key={day.number}
            type="button"
            className={gaps > 0 ? "small-day has-gaps" : "small-day"}
            aria-pressed={here}
            onClick={() => onDay(day.number)}
          >
            <SmallBoard document={document} rehearsal={rehearsal} {...day} />
            <span>
              {name}
              {gaps > 0 ? <b> · {countText(gaps, "gap")}</b> : null}
            </span>
          </button>
        );
      })}
      <button
        type="button"
        className="small-day all-stops"
        aria-pressed={fold === "stops"}
        onClick={() => onFold(fold === "stops" ? "day" : "stops")}
      >
        All stops
      </button>
    </div>
  );
}
