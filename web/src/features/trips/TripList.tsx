import { Button, Dialog } from "@mui/material";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { deleteTrip, listsChanged } from "../../api/queries";
import { TripDays } from "./TripDays";

interface TripLine {
  id: number;
  name: string;
  kit: string;
  variants: number;
  saved_at: string;
}

/** The trips, each with its kit; deletion says what goes with it. */
export function TripList({ trips }: { trips: readonly TripLine[] }) {
  const [going, setGoing] = useState<TripLine | null>(null);
  const cache = useQueryClient();
  const removing = useMutation({
    mutationFn: deleteTrip,
    onSettled: () => {
      setGoing(null);
      void listsChanged(cache);
    },
  });
  return (
    <>
      <ul className="trip-list">
        {trips.map((trip) => (
          <li key={trip.id}>
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
                onClick={() => setGoing(trip)}
                aria-label={`Delete ${trip.name}`}
              >
                Delete
              </button>
            </span>
          </li>
        ))}
      </ul>
      {removing.error ? <p role="alert">{removing.error.message}</p> : null}
      <Dialog open={going !== null} onClose={() => setGoing(null)} aria-labelledby="delete-trip">
        <div className="sheet">
          <h2 id="delete-trip">Delete {going?.name}?</h2>
          <p>
            It lies in the bin for 30 days, with its legs, its plan, all its steps
            {variantsText(going?.variants ?? 0)}, and can be put back from there. Its kit (
            {going?.kit}) stays.
          </p>
          <div className="row">
            <Button
              variant="contained"
              color="error"
              disabled={removing.isPending}
              onClick={() => {
                if (going) removing.mutate(going.id);
              }}
            >
              Delete the trip
            </Button>
            <Button onClick={() => setGoing(null)}>Keep it</Button>
          </div>
        </div>
      </Dialog>
    </>
  );
}

function variantsText(count: number): string {
  if (count === 0) return "";
  return count === 1 ? " and its variant" : ` and its ${String(count)} variants`;
}
