import { useMemo } from "react";
import { Link } from "react-router";
import { useTripHere } from "../../app/TripContext";
import type { Shown } from "../../api/useRehearsal";
import { clockOf } from "../../domain/clock";
import { BoardWork } from "./BoardWork";
import { UndoHere } from "./UndoHere";
import { useTrial } from "./useTrial";
import "./board.css";
import "./field.css";
import "./side.css";
import "./strip.css";
import "./top.css";

/** The board: plan and rehearsal in one picture. */
export function BoardPlace() {
  const { rehearsing } = useTripHere();
  const { shown, error } = rehearsing;
  if (shown === null)
    return (
      <main className="page" aria-busy={error === null}>
        <h1>{error === null ? "Rehearsing the trip…" : "The trip could not be rehearsed."}</h1>
        {error === null ? null : (
          <>
            <p role="alert">{error.message}</p>
            <UndoHere />
          </>
        )}
      </main>
    );
  if (shown.document.kit.cameras.length === 0)
    return (
      <main className="page">
        <h1>No camera yet.</h1>
        <p>
          Put your cameras, batteries and cards on the <Link to="../kit">kit shelf</Link>, and your
          legs and stops on the <Link to="../route">route</Link>. The board then shows whether it
          lasts.
        </p>
      </main>
    );
  return <Ready shown={shown} />;
}

function Ready({ shown }: { shown: Shown }) {
  const { trip } = shown.document;
  const zone = trip.time_zone;
  const start = shown.rehearsal.start_utc;
  // the clock depends on start and zone alone; keeping it spares the drawing
  const clock = useMemo(() => clockOf(zone, start), [zone, start]);
  const { drawn, ...trials } = useTrial(shown);
  return <BoardWork {...drawn} {...trials} present={shown} clock={clock} />;
}
