import { useMutation, useQueryClient } from "@tanstack/react-query";
import { Fragment, useState } from "react";
import { Link } from "react-router";
import { deleteTrip, listsChanged, takeOut } from "../../api/queries";
import { TripDays } from "./TripDays";

interface TripLine {
  id: number;
  name: string;
  kit: string;
  variants: number;
  saved_at: string;
}

/** The trips, each with its kit; where one was deleted stands what went with it, and its way back. */
export function TripList({ trips }: { trips: readonly TripLine[] }) {
  const [gone, setGone] = useState<{ trip: TripLine; place: number } | null>(null);
  const cache = useQueryClient();
  const changed = () => listsChanged(cache);
  const removing = useMutation({
    mutationFn: ({ trip }: { trip: TripLine; place: number }) => deleteTrip(trip.id),
    onSuccess: (_, which) => setGone(which),
    onSettled: changed,
  });
  const returning = useMutation({
    mutationFn: (id: number) => takeOut({ kind: "trip", id }),
    onSuccess: () => setGone(null),
    onSettled: changed,
  });
  const isGone = gone !== null && trips.every((one) => one.id !== gone.trip.id);
  const words = isGone ? (
    <Deleted trip={gone.trip} busy={returning.isPending} putBack={returning.mutate} />
  ) : null;
  const error = removing.error ?? returning.error;
  return (
    <>
      <ul className="trip-list">
        {trips.map((trip, place) => (
          <Fragment key={trip.id}>
            {gone?.place === place ? words : null}
            <li>
              <Link to={`/trip/${String(trip.id)}/board`} className="trip-link label">
                {trip.name}
              </Link>
              <TripDays id={trip.id} name={trip.name} savedAt={trip.saved_at} />
              <span className="row trip-tools">
                <a
                  className="link"
                  href={`/api/trips/${String(trip.id)}/file`}
                  aria-label={`Save file of ${trip.name}`}
                >
                  Save file
                </a>
                <button
                  type="button"
                  className="plain link"
                  disabled={removing.isPending}
                  onClick={() => removing.mutate({ trip, place })}
                  aria-label={`Delete ${trip.name}`}
                >
                  Delete
                </button>
              </span>
            </li>
          </Fragment>
        ))}
        {isGone && gone.place >= trips.length ? words : null}
      </ul>
      {error ? <p role="alert">{error.message}</p> : null}
    </>
  );
}

interface DeletedProps {
  trip: TripLine;
  busy: boolean;
  putBack: (id: number) => void;
}

function Deleted({ trip, busy, putBack }: DeletedProps) {
  return (
    <li role="status">
      <span className="trip-gone">
        <strong>{trip.name}</strong> lies in the bin for 30 days, with its legs, its plan, all its
        steps{variantsText(trip.variants)}. Its kit ({trip.kit}) stays.
      </span>
      <span className="row trip-tools">
        <button
          type="button"
          className="plain link"
          disabled={busy}
          onClick={() => putBack(trip.id)}
          aria-label={`Put ${trip.name} back`}
        >
          Put back
        </button>
      </span>
    </li>
  );
}

function variantsText(count: number): string {
  if (count === 0) return "";
  return count === 1 ? " and its variant" : ` and its ${String(count)} variants`;
}
