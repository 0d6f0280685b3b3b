import { Button } from "@mui/material";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { effectsOf, putBackFigures, takeFigures } from "../../api/bench";
import type { Schemas } from "../../api/client";
import type { BenchTold, Camera, KitState, Notebook, NotebookState } from "../../domain/types";

interface Props {
  kitId: number;
  camera: Camera;
  told: BenchTold;
  notebook: Notebook;
  /** Kit and notebook are saved as they are shown. */
  settled: () => Promise<void>;
}

/** Which figures are measured and which assumed, and their way into the kit and back. */
export function Figures({ kitId, camera, told, notebook, settled }: Props) {
  const cache = useQueryClient();
  const taken = notebook.taken.find((one) => one.camera === camera.id);
  const effects = useMutation({
    mutationFn: async () => {
      await settled();
      return effectsOf(kitId, camera.id);
    },
  });
  const moving = useMutation({
    mutationFn: async (way: "take" | "put back") => {
      await settled();
      const asked = {
        camera: camera.id,
        version: cache.getQueryData<NotebookState>(["bench", kitId])?.version ?? 0,
        kit_version: cache.getQueryData<KitState>(["kit", kitId])?.version ?? 0,
      };
      return way === "take" ? takeFigures(kitId, asked) : putBackFigures(kitId, asked);
    },
    onSuccess: ({ kit, bench }) => {
      cache.setQueryData(["kit", kitId], kit);
      cache.setQueryData(["bench", kitId], bench);
      effects.reset();
    },
    // someone saved in between: what is there now is shown, and can be taken from
    onError: () => {
      void cache.invalidateQueries({ queryKey: ["kit", kitId] });
      void cache.invalidateQueries({ queryKey: ["bench", kitId] });
    },
  });
  const known = told.figures.filter((one) => one.known);
  const unknown = told.figures.filter((one) => !one.known);
  const problem = effects.error ?? moving.error;
  return (
    <section aria-label="Figures">
      <h2>What is measured of {camera.name}</h2>
      {known.length === 0 ? <p className="hint">No figure yet: everything is assumed.</p> : null}
      {known.length === 0 ? null : (
        <p className="hint">
          All runs that count, fitted together; {told.agreeing} of {told.starts} searches from
          different starts agree. In brackets, the middle eight of ten.
        </p>
      )}
      <dl className="figures label">
        {known.map((one) => (
          <FigureLine key={`${one.kind}/${one.of}`} figure={one} />
        ))}
      </dl>
      {known.length === 0 ? null : (
        <div className="row start-row">
          <Button onClick={() => effects.mutate()} disabled={effects.isPending}>
            {effects.isPending ? "Rehearsing…" : "See what they change"}
          </Button>
          <Button
            variant="contained"
            onClick={() => moving.mutate("take")}
            disabled={moving.isPending}
          >
            Take them into the kit
          </Button>
        </div>
      )}
      {taken === undefined || !told.taken_stands ? null : (
        <div className="row start-row">
          <span>
            In the kit since{" "}
            {new Date(taken.at).toLocaleString("en-GB", {
              dateStyle: "medium",
              timeStyle: "short",
            })}
            .
          </span>
          <Button onClick={() => moving.mutate("put back")} disabled={moving.isPending}>
            Put the old ones back
          </Button>
        </div>
      )}
      {problem ? <p role="alert">{problem.message}</p> : null}
      {effects.data === undefined ? null : <EffectsTold effects={effects.data} />}
      {unknown.length === 0 ? null : (
        <details>
          <summary>{unknown.length} that cannot be known yet</summary>
          <dl className="figures label">
            {unknown.map((one) => (
              <div key={`${one.kind}/${one.of}`}>
                <dt>{one.name}</dt>
                <dd>
                  assumed {one.assumed}. <span className="hint">{one.unknown}</span>
                </dd>
              </div>
            ))}
          </dl>
        </details>
      )}
    </section>
  );
}

function FigureLine({ figure }: { figure: BenchTold["figures"][number] }) {
  return (
    <div>
      <dt>{figure.name}</dt>
      <dd>
        <strong>{figure.value}</strong> ({figure.low} to {figure.high}){" "}
        <span className="hint">assumed {figure.assumed}</span>
      </dd>
    </div>
  );
}

function EffectsTold({ effects }: { effects: Schemas["Effects"] }) {
  return (
    <div role="status" className="effects">
      {effects.changes.length === 0 ? (
        <p>The kit has these figures already.</p>
      ) : (
        <details>
          <summary>
            {effects.changes.length === 1
              ? "1 figure of the kit changes"
              : `${String(effects.changes.length)} figures of the kit change`}
          </summary>
          <ul className="plain-list">
            {effects.changes.map((one) => (
              <li key={one.figure}>
                {one.figure}: {one.before} → <strong>{one.after}</strong>
              </li>
            ))}
          </ul>
        </details>
      )}
      {effects.trips.map((trip) => (
        <p key={trip.trip_id}>
          <strong>{trip.trip}</strong>: {trip.words}
          {trip.before === trip.after ? null : (
            <>
              {" "}
              <span className="hint">
                Before: “{trip.before}” Then: “{trip.after}”
              </span>
            </>
          )}
        </p>
      ))}
    </div>
  );
}
