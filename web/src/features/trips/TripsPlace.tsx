import { Button } from "@mui/material";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useRef, useState } from "react";
import { Link, useNavigate } from "react-router";
import { Refused } from "../../api/client";
import { makeTrip, openDemo, openPlanFile, queries } from "../../api/queries";
import { useDrop } from "../../ui/useDrop";
import { MeasuresToggle } from "../../app/MeasuresToggle";
import { ThemeToggle } from "../../app/ThemeToggle";
import { useTitle } from "../../app/useTitle";
import { Said } from "../../ui/Said";
import { Bin } from "./Bin";
import { KitList } from "./KitList";
import { NewTrip } from "./NewTrip";
import { TripList } from "./TripList";
import "./trips.css";

/** All trips and kits, new ones, and plan files. */
export function TripsPlace() {
  useTitle("Trips");
  const trips = useQuery(queries.trips());
  const kits = useQuery(queries.kits());
  const navigate = useNavigate();
  const cache = useQueryClient();
  const chooser = useRef<HTMLInputElement>(null);
  const [fileName, setFileName] = useState("");
  const arrive =
    (place: string, led = false) =>
    async (trip: { id: number }) => {
      await cache.invalidateQueries({ queryKey: ["trips"] });
      await cache.invalidateQueries({ queryKey: ["kits"] });
      void navigate(`/trip/${String(trip.id)}/${place}`, { state: { led } });
    };
  const opening = useMutation({
    mutationFn: async (file: File) => {
      setFileName(file.name);
      return openPlanFile(await file.arrayBuffer());
    },
    onSuccess: arrive("board"),
  });
  const making = useMutation({ mutationFn: makeTrip, onSuccess: arrive("kit") });
  const demo = useMutation({
    mutationFn: openDemo,
    onSuccess: (state) => arrive("board", true)(state),
  });
  const empty = trips.data?.length === 0;
  const open = (files: FileList | null) => {
    const file = files?.[0];
    if (file) opening.mutate(file);
    if (chooser.current) chooser.current.value = "";
  };
  const { over, handlers } = useDrop((dropped) => open(dropped.files));
  return (
    <>
      <header className="head-bar label">
        <Link to="/" className="brand">
          Tumbrel
        </Link>
        <span className="trip-name whole">Rehearse a filmed trip before you leave</span>
        <span className="head-tools">
          <Link to="/sums" className="tool">
            Quick sums
          </Link>
          <MeasuresToggle />
          <ThemeToggle />
        </span>
      </header>
      <main className={over ? "page trips-page over" : "page trips-page"} {...handlers}>
        <h1>{empty ? "Will it last? Begin with one of these." : "Your trips"}</h1>
        <FileTrouble error={opening.error} name={fileName} />
        {(making.error ?? demo.error) ? (
          <Said kind="wrong">{(making.error ?? demo.error)?.message}</Said>
        ) : null}
        {empty ? (
          <div className="row starts">
            <Button variant="contained" disabled={demo.isPending} onClick={() => demo.mutate()}>
              Begin from the demo trip
            </Button>
          </div>
        ) : null}
        <div className="trips-columns">
          <div>
            <TripList trips={trips.data ?? []} />
            <KitList kits={kits.data ?? []} />
          </div>
          <div>
            <NewTrip
              kits={kits.data ?? []}
              busy={making.isPending}
              onMake={(asked) =>
                making.mutateAsync(asked).then(
                  () => true,
                  () => false,
                )
              }
            />
            <section>
              <h2>Open a plan file</h2>
              <p className="hint">
                A .json file saved by Tumbrel. Drop it here, or choose it. A file with anything
                wrong in it changes nothing.
              </p>
              <input
                ref={chooser}
                type="file"
                accept=".json,application/json"
                aria-label="Plan file"
                className="file-chooser"
                onChange={(event) => open(event.target.files)}
              />
            </section>
            <Bin />
            <section>
              <h2>Everything as one file</h2>
              <p className="hint">
                Kits, trips with all their steps, variants and bench runs. On this machine{" "}
                <code>python3 run.py restore FILE</code> puts them back.
              </p>
              <a className="link" href="/api/everything">
                Save everything
              </a>
            </section>
          </div>
        </div>
      </main>
    </>
  );
}

function FileTrouble({ error, name }: { error: Error | null; name: string }) {
  if (error === null) return null;
  const faults = error instanceof Refused ? error.problem.faults : [];
  return (
    <Said kind="wrong">
      {faults.length === 0 ? error.message : `${name} was not opened; nothing was changed.`}
      <ul className="faults">
        {faults.slice(0, 12).map((fault) => (
          <li key={fault.path + fault.why}>
            <code>{fault.path}</code>: {fault.why}
          </li>
        ))}
      </ul>
      {faults.length > 12 ? `and ${String(faults.length - 12)} more` : null}
    </Said>
  );
}
