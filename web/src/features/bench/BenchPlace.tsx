import { Button } from "@mui/material";
import { useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import { tellBench, useKeptBench } from "../../api/bench";
import type { BesideAsked } from "../../api/queries";
import { usePumped } from "../../api/usePumped";
import { Conflicts } from "../../app/Conflicts";
import { useTripHere } from "../../app/TripContext";
import { useStepCommands } from "../../app/useStepCommands";
import { onBench, testMinutes } from "../../domain/bench";
import type { BenchRun, Kit, Notebook, OnBench, Plan, Trip } from "../../domain/types";
import { Pick } from "../../ui/fields";
import { useNow } from "../../ui/useNow";
import { useWidth } from "../../ui/useWidth";
import { benchLayout } from "./benchLayout";
import { Figures } from "./Figures";
import { LookView } from "./LookView";
import { RunningTests } from "./RunningTests";
import { RunsPicture } from "./RunsPicture";
import { useWays } from "./useWays";
import { WaysIn } from "./WaysIn";
import "./bench.css";

/** The bench: can I believe this camera's figures? */
export function BenchPlace() {
  const { kept } = useTripHere();
  const kitId = kept.state?.kit_id;
  return kitId === undefined ? null : <BenchOf key={kitId} kitId={kitId} />;
}

function BenchOf({ kitId }: { kitId: number }) {
  const { kept: trip, kit: keptKit } = useTripHere();
  const kept = useKeptBench(kitId);
  const { state } = kept;
  const kit = keptKit.state?.kit;
  const [chosen, setChosen] = useState<string | null>(null);
  const cameras = kit?.cameras ?? [];
  const camera = cameras.find((one) => one.id === chosen) ?? cameras[0];
  useStepCommands("bench", "on the bench", kept);
  const settledKit = keptKit.settled;
  const settledBench = kept.settled;
  const settled = useCallback(async () => {
    await settledKit();
    await settledBench();
  }, [settledKit, settledBench]);

  if (kit === undefined || state === undefined) {
    const problem = kept.error ?? keptKit.error;
    return (
      <main className="page">
        {problem ? <p role="alert">{problem.message}</p> : "Opening the bench…"}
      </main>
    );
  }
  const { notebook } = state;
  const of = (id: string) => notebook.runs.filter((run) => run.camera === id).length;
  const strangers = notebook.runs.filter((run) => !cameras.some((one) => one.id === run.camera));
  return (
    <main className="page bench-page">
      <Conflicts kept={kept} what="bench" />
      <RunningTests
        kitId={kitId}
        kit={kit}
        notebook={notebook}
        edit={kept.edit}
        onKept={(id) => setChosen(id)}
      />
      <div className="row between">
        <Pick
          label="Camera"
          value={camera?.id ?? null}
          choices={cameras.map((one) => ({
            value: one.id,
            name: one.name,
            note: of(one.id) === 1 ? "1 run" : `${String(of(one.id))} runs`,
          }))}
          onPick={setChosen}
        />
        <span className="row">
          <Button
            href={`/api/kits/${String(kitId)}/bench/runs.csv`}
            disabled={!notebook.runs.length}
          >
            Save all runs as CSV
          </Button>
        </span>
      </div>
      {camera === undefined ? (
        <p>The kit has no camera yet: add one in Kit.</p>
      ) : (
        <CameraBench
          key={camera.id}
          kitId={kitId}
          kept={{ kit: kitId, version: keptKit.state?.version ?? 0, notebook: state.version }}
          cameraId={camera.id}
          kit={kit}
          notebook={notebook}
          trip={trip.state?.trip ?? null}
          plan={trip.state?.plan ?? null}
          edit={kept.edit}
          editKit={(change) => keptKit.edit((doc) => ({ ...doc, kit: change(doc.kit) }))}
          settled={settled}
        />
      )}
      {strangers.length === 0 ? null : (
        <p className="hint">
          {strangers.length === 1 ? "One run is" : `${String(strangers.length)} runs are`} of
          cameras that the kit no longer has; they are kept and saved with the rest.
        </p>
      )}
    </main>
  );
}

export interface CameraBenchProps {
  kitId: number;
  /** Kit and notebook as they are kept. */
  kept: Omit<BesideAsked, "there">;
  cameraId: string;
  kit: Kit;
  notebook: Notebook;
  trip: Trip | null;
  plan: Plan | null;
  edit: (change: (old: Notebook) => Notebook) => void;
  editKit: (change: (old: Kit) => Kit) => void;
  settled: () => Promise<void>;
}

interface Telling {
  on: OnBench;
  trip: Trip | null;
  plan: Plan | null;
}

const tell = ({ on, trip, plan }: Telling) => tellBench(on, trip, plan);

function useTold(on: OnBench, trip: Trip | null, plan: Plan | null) {
  const question = useMemo(() => ({ on, trip, plan }), [on, trip, plan]);
  return usePumped(tell, question);
}

function CameraBench(props: CameraBenchProps) {
  const { kit, notebook, cameraId } = props;
  const { runs, taken } = notebook;
  const on = useMemo(() => onBench(kit, { runs, taken }, cameraId), [kit, runs, taken, cameraId]);
  return on === null ? null : <Bench {...props} on={on} />;
}

function Bench({ on, ...props }: CameraBenchProps & { on: OnBench }) {
  const { notebook, trip, plan, kitId, settled } = props;
  const { camera } = on;
  const { result: told, late, error } = useTold(on, trip, plan);
  const cache = useQueryClient();
  const [run, setRun] = useState<string | null>(null);
  const ways = useWays();
  const frame = useRef<HTMLDivElement>(null);
  const width = useWidth(frame, 1200);
  const tests = notebook.running.filter((one) => one.camera === camera.id);
  const now = useNow(5000, tests.length > 0);
  const layout = benchLayout(
    on.runs,
    told,
    tests.map((test) => ({ test, minutes: testMinutes(test, now) })),
    width,
  );
  const below = useRef<HTMLDivElement>(null);
  const choose = (id: string) => {
    if (id === "next") {
      const next = told?.next;
      if (next != null) ways.open("start", next);
      setRun(null);
    } else setRun((old) => (old === id ? null : id));
  };
  useEffect(() => {
    if (run !== null || ways.way !== null) below.current?.scrollIntoView({ block: "nearest" });
  }, [run, ways.way]);
  const keep = (runs: BenchRun[]) => {
    props.edit((old) => ({ ...old, runs: [...old.runs, ...runs] }));
    void cache.invalidateQueries({ queryKey: ["reading", kitId] });
    setRun(runs[0]?.id ?? null);
  };
  return (
    <>
      <section aria-label="Runs">
        <h1 data-testid="bench-headline">{told?.headline ?? "Looking at the runs…"}</h1>
        <p role="status">
          {told?.detail}
          {late && told !== null ? " Working…" : ""}
        </p>
        {told === null || told.contrasts.length === 0 ? null : (
          <ul className="contrasts label" aria-label="What one change did">
            {told.contrasts.map((words) => (
              <li key={words}>{words}</li>
            ))}
          </ul>
        )}
        {told === null ? null : (
          <p>
            <strong className="label">{told.next ? "Worth doing next" : "What next"}:</strong>{" "}
            {told.next_words}
          </p>
        )}
        {error === null ? null : <p role="alert">{error}</p>}
        <div ref={frame} className="shelf-frame">
          <RunsPicture
            layout={layout}
            camera={camera}
            width={width}
            chosen={run}
            onChoose={choose}
          />
        </div>
        <p className="hint">
          Each cord is a run, as long as it recorded: toothed hot, flat empty, notched card, a knot
          the clip limit, an arrow stopped by you. The pale band behind is what all runs together
          foretell, eight times in ten; a ring is what the box claims; a flag, its heat warning.
        </p>
      </section>
      <div ref={below}>
        <WaysIn
          {...props}
          on={on}
          told={told}
          run={on.runs.find((one) => one.id === run) ?? null}
          ways={ways}
          closeRun={() => setRun(null)}
          keep={keep}
        />
      </div>
      <LookView on={on} kept={props.kept} />
      {told === null ? null : (
        <Figures kitId={kitId} camera={camera} told={told} notebook={notebook} settled={settled} />
      )}
    </>
  );
}
