import { Button } from "@mui/material";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { lookAt, readDevice } from "../../api/bench";
import {
  changedTest,
  clockText,
  conditionLines,
  END_CHOICES,
  END_WORDS,
  endedRun,
  expectedWords,
  isPaused,
  modeName,
  onBench,
  testMinutes,
  withEnded,
  withoutTest,
  withPause,
} from "../../domain/bench";
import type {
  BenchRun,
  Kit,
  Notebook,
  OnBench,
  Reading,
  RunEnd,
  RunningTest,
} from "../../domain/types";
import { gigabytesText, minutesText, percentText } from "../../domain/units";
import { useNow } from "../../ui/useNow";

interface Props {
  kitId: number;
  kit: Kit;
  notebook: Notebook;
  edit: (change: (old: Notebook) => Notebook) => void;
  onKept: (camera: string, run: string) => void;
}

/** Every test that runs now: one huge clock, a warning, the ends. */
export function RunningTests({ kit, notebook, ...rest }: Props) {
  return notebook.running.map((test) => (
    <RunningOne key={test.id} test={test} on={onBench(kit, notebook, test.camera)} {...rest} />
  ));
}

interface OneProps {
  kitId: number;
  test: RunningTest;
  on: OnBench | null;
  edit: Props["edit"];
  onKept: Props["onKept"];
}

const POLL_MS = 1000;

function RunningOne({ kitId, test, on, edit, onKept }: OneProps) {
  const camera = on?.camera;
  const now = useNow(POLL_MS / 2, true);
  const simulated = test.device === "simulated";
  const reading = useQuery({
    queryKey: ["reading", kitId, test.id],
    queryFn: () => readDevice(kitId, test.id),
    enabled: simulated,
    refetchInterval: (query) => (query.state.data?.recording === false ? false : POLL_MS),
  }).data;
  const expected = useQuery({
    queryKey: ["expected", kitId, test.id],
    queryFn: () => expectedOf(on, test),
    staleTime: Infinity,
  }).data;
  const [asks, setAsks] = useState(false);
  const minutes = reading?.recording === false ? reading.minutes : testMinutes(test, now);
  const change = (changed: (old: RunningTest) => RunningTest) =>
    edit((old) => changedTest(old, test.id, changed));
  const keep = (run: BenchRun) => {
    edit((old) => withEnded(old, test, run));
    onKept(test.camera, run.id);
  };
  const conditions = camera === undefined ? [] : conditionLines(test, camera).filter(Boolean);
  const name = camera?.name ?? `${test.camera} (no longer in the kit)`;
  const what = camera === undefined ? test.mode : modeName(camera, test.mode);
  return (
    <section aria-label={`Test of ${name}`} className="running">
      <div className="running-clock">
        <p className="label running-name">
          {name}, {what}, {conditions.join(", ")}
          {simulated ? `, simulated${test.speed > 1 ? ` × ${String(test.speed)}` : ""}` : ""}
        </p>
        <p className="label huge" role="timer" aria-label="Recorded">
          {clockText(minutes)}
        </p>
        <p>{expected}</p>
        <p className="hint">{noted(test, reading)}</p>
      </div>
      <div className="running-buttons">
        {simulated && reading?.recording === false ? (
          <Button
            variant="contained"
            size="large"
            onClick={() => keep(simulatedRun(test, reading))}
          >
            It stopped: {END_WORDS[reading.end ?? "stopped"]} at {minutesText(reading.minutes)}.
            Keep this run
          </Button>
        ) : (
          <>
            {simulated ? null : (
              <div className="row">
                <Button
                  onClick={() => change((old) => ({ ...old, warned_at: warned(old) }))}
                  aria-pressed={test.warned_at != null}
                >
                  {test.warned_at == null ? "It warns of heat" : "Take the warning back"}
                </Button>
                {test.plugged ? (
                  <Button onClick={() => change((old) => withPause(old, instant()))}>
                    {isPaused(test) ? "It charges again" : "Charging pauses"}
                  </Button>
                ) : null}
              </div>
            )}
            <div className="row ends" role="group" aria-label="It ended">
              {END_CHOICES.filter((one) => !(test.plugged && one.value === "empty")).map((one) =>
                simulated && one.value !== "stopped" ? null : (
                  <Button
                    key={one.value}
                    variant={one.value === "stopped" ? "outlined" : "contained"}
                    onClick={() =>
                      simulated && reading !== undefined
                        ? keep(simulatedRun(test, reading))
                        : keep(endedNow(test, one.value))
                    }
                  >
                    {one.name}
                  </Button>
                ),
              )}
            </div>
          </>
        )}
        {asks ? (
          <p className="row">
            <Button color="error" onClick={() => edit((old) => withoutTest(old, test.id))}>
              Throw this test away
            </Button>
            <Button onClick={() => setAsks(false)}>Go on</Button>
          </p>
        ) : (
          <button type="button" className="plain link" onClick={() => setAsks(true)}>
            Throw away…
          </button>
        )}
      </div>
    </section>
  );
}

/** What the runs so far foretell of a test: asked once, before it can be part of them. */
async function expectedOf(on: OnBench | null, test: RunningTest): Promise<string> {
  if (on === null) return "";
  const look = await lookAt(on, test);
  const mode = look.modes.find((one) => one.mode === test.mode);
  return mode === undefined || test.charge_start < 1 ? "" : expectedWords(mode);
}

function endedNow(test: RunningTest, end: RunEnd): BenchRun {
  return endedRun(test, Date.now(), end);
}

function instant(): string {
  return new Date().toISOString();
}

function warned(test: RunningTest): string | null {
  return test.warned_at == null ? instant() : null;
}

/** What was noted so far, or what the simulated camera shows. */
function noted(test: RunningTest, reading: Reading | undefined): string {
  if (test.device === "simulated") {
    if (reading === undefined) return "Asking the simulated camera…";
    const warning = reading.warned_min == null ? "" : ", warns of heat";
    return `It shows ${percentText(reading.battery)}${warning}, ${gigabytesText(reading.free_bytes)} free.`;
  }
  const parts = [
    test.warned_at == null
      ? ""
      : `Warned of heat at ${clockText(testMinutes(test, Date.parse(test.warned_at)))}.`,
    isPaused(test) ? "Charging pauses." : "",
  ].filter(Boolean);
  return parts.join(" ") || "The clock goes on when this page is closed or the machine sleeps.";
}

/** The run as the simulated camera itself tells it. */
function simulatedRun(test: RunningTest, reading: Reading): BenchRun {
  const run = endedRun(test, Date.parse(test.started_at), reading.end ?? "stopped");
  const minutes = Math.max(0.1, Math.round(reading.minutes * 10) / 10);
  const warnedAt = reading.warned_min == null ? null : Math.round(reading.warned_min * 10) / 10;
  return {
    ...run,
    minutes,
    warned_min: warnedAt === null ? null : Math.min(minutes, Math.max(0.1, warnedAt)),
    charge_end: test.plugged ? reading.battery : Math.min(test.charge_start, reading.battery),
    bytes: reading.used_bytes,
  };
}
