import { useQuery } from "@tanstack/react-query";
import { Navigate } from "react-router";
import { queries } from "../../api/queries";
import { LAST_TRIP } from "../../app/TripContext";

/** Where one begins: the trip last open, else the first one (the demo), else the empty start. */
export function FirstPlace() {
  const trips = useQuery(queries.trips());
  if (trips.isLoading) return <main className="page">Opening Tumbrel…</main>;
  if (trips.data === undefined)
    return (
      <main className="page">
        <h1>Tumbrel is not answering.</h1>
        <p role="alert">{trips.error?.message}</p>
        <button type="button" className="plain link" onClick={() => void trips.refetch()}>
          Try again
        </button>
      </main>
    );
  const last = Number(localStorage.getItem(LAST_TRIP));
  const trip = trips.data.find((one) => one.id === last) ?? trips.data[0];
  // the very first time one is led to a gap and its cure
  const state = { led: !localStorage.getItem(LAST_TRIP) };
  return <Navigate to={trip ? `/trip/${String(trip.id)}/board` : "/trips"} state={state} replace />;
}
