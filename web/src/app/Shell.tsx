import { useQuery } from "@tanstack/react-query";
import { useCallback, useEffect, useMemo, useState } from "react";
import { Link, Outlet, useParams } from "react-router";
import { queries } from "../api/queries";
import { namesOf } from "../domain/clashes";
import { CardChanged } from "./CardChanged";
import { Conflicts } from "./Conflicts";
import { GoneContext } from "./gone";
import { useLastSteps } from "./lastSteps";
import { SaidGone } from "./SaidGone";
import { type Offered, type Steps, StepsContext } from "./StepsContext";
import { LAST_TRIP, TripContext } from "./TripContext";
import { TripHead } from "./TripHead";
import { useOpenTrip } from "./useOpenTrip";

/** One trip: its head, the way between its places, and what all places share. */
export function Shell() {
  const id = Number(useParams()["tripId"]);
  return <TripShell key={id} id={id} />;
}

function TripShell({ id }: { id: number }) {
  const { data, error } = useQuery(queries.trip(id));
  if (data !== undefined) return <OpenTrip id={id} kitId={data.kit_id} />;
  if (error === null) return <p className="page">Opening the trip…</p>;
  return (
    <main className="page">
      <h1>This trip cannot be opened.</h1>
      <p>{error.message}</p>
      <p>
        <Link to="/trips">All trips</Link>
      </p>
    </main>
  );
}

function OpenTrip({ id, kitId }: { id: number; kitId: number }) {
  const here = useOpenTrip(id, kitId);
  const { kept, kit, rehearsing } = here;
  const { state, settled } = kept;
  const [place, setPlace] = useState<Offered | null>(null);
  const last = useLastSteps(id, kitId, kept, kit);
  const steps: Steps = {
    what: place?.what ?? "The trip",
    keeping: place?.keeping ?? kept.keeping,
    ...(place?.own ?? last),
  };
  const names = useMemo(
    () => (kept.conflict && state ? namesOf(state.kit, state.trip) : undefined),
    [kept.conflict, state],
  );
  const saveFile = useCallback(() => {
    void settled().then(() => location.assign(`/api/trips/${String(id)}/file`));
  }, [id, settled]);
  useEffect(() => {
    localStorage.setItem(LAST_TRIP, String(id));
  }, [id]);
  const value = useMemo(() => ({ id, kept, kit, rehearsing }), [id, kept, kit, rehearsing]);
  return (
    <TripContext value={value}>
      <TripHead
        name={state?.trip.name ?? "…"}
        steps={steps}
        own={place?.own != null}
        saveFile={saveFile}
      />
      <div className="kept-alerts">
        <Conflicts kept={kept} what="trip" names={names} />
        <Conflicts kept={kit} what="kit" />
        <SaidGone gone={here.gone.gone} undo={last.undo} onClose={here.gone.forget} />
      </div>
      {state?.card_made ? (
        <CardChanged id={id} version={state.version} zone={state.trip.time_zone} />
      ) : null}
      {here.open ? (
        <StepsContext value={setPlace}>
          <GoneContext value={here.gone.tell}>
            <Outlet />
          </GoneContext>
        </StepsContext>
      ) : (
        <p className="page" role={kit.error ? "alert" : undefined}>
          {kit.error?.message ?? "Opening the trip…"}
        </p>
      )}
    </TripContext>
  );
}
