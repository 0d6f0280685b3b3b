import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import { queries } from "../../api/queries";
import { SmallBoard } from "../../board/SmallBoard";
import { clockOf, dayWindows } from "../../domain/clock";
import { countText } from "../../domain/units";

interface Props {
  id: number;
  name: string;
  savedAt: string;
}

const MOST_DAYS = 8;

/** A trip as its strip of small days, with its verdict and when it is; rehearsed when it is seen. */
export function TripDays({ id, name, savedAt }: Props) {
  const told = useQuery(queries.tripTold(id, savedAt));
  if (told.data === undefined)
    return <p className="trip-verdict">{told.error?.message ?? "Rehearsing…"}</p>;
  const { document, rehearsal } = told.data;
  const clock = clockOf(document.trip.time_zone, rehearsal.start_utc);
  const days = dayWindows(document.trip, rehearsal, clock);
  const { verdict } = rehearsal;
  return (
    <>
      <Link
        to={`/trip/${String(id)}/board`}
        className="trip-days"
        aria-label={`${name}: ${countText(days.length, "day")}`}
        tabIndex={-1}
      >
        {days.slice(0, MOST_DAYS).map((day) => (
          <SmallBoard key={day.number} document={document} rehearsal={rehearsal} {...day} />
        ))}
        {days.length > MOST_DAYS ? (
          <span className="label">
            and {countText(days.length - MOST_DAYS, "more day", "more days")}
          </span>
        ) : null}
      </Link>
      <p className={verdict.covered ? "trip-verdict covered" : "trip-verdict"}>
        {document.plan.assignments.length === 0 ? "Nothing is asked yet." : verdict.headline}{" "}
        <span className="trip-more label">
          {clock.date(0)}, {clock.time(0)} ·{" "}
          {document.kit.cameras.map((one) => one.name).join(", ") || "no camera yet"} ·{" "}
          {countText(document.kit.batteries.length, "battery", "batteries")}
        </span>
      </p>
    </>
  );
}
