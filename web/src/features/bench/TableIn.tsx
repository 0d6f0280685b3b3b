import { Button } from "@mui/material";
import { useMutation } from "@tanstack/react-query";
import { readRuns } from "../../api/bench";
import { END_WORDS, modeName } from "../../domain/bench";
import type { BenchRun, Camera } from "../../domain/types";
import { minutesText, temperatureText } from "../../domain/units";
import { Field } from "../../ui/fields";
import { FileIn } from "../../ui/FileIn";
import { useDraft } from "../../ui/useDraft";

interface Props {
  kitId: number;
  camera: Camera;
  cameras: readonly Camera[];
  /** What was edited is saved: names that are taken are looked up on the server. */
  settled: () => Promise<void>;
  onKeep: (runs: BenchRun[]) => void;
}

const LEAST_ROWS = 3;
const MOST_ROWS = 10;
const EXAMPLE = "4K60\t28 min\thot\t21\tstill\n4K60\t1:01\tempty\t21\tfan";

/** Runs from a pasted table or a CSV file, looked at before they are taken. */
export function TableIn({ kitId, camera, cameras, settled, onKeep }: Props) {
  const [text, setText] = useDraft(`runs.${String(kitId)}`);
  const reading = useMutation({
    mutationFn: async (from: string) => {
      await settled();
      return readRuns(kitId, from, camera.id);
    },
  });
  const runs = reading.data ?? [];
  const nameOf = (id: string) => cameras.find((one) => one.id === id);
  return (
    <div>
      <p className="hint">
        One run a line, columns by tab, semicolon or comma: mode, minutes, end, room °C, air,
        set-up, plugged, date, firmware. A first line may name the columns; a file that Tumbrel
        wrote has all of them.
      </p>
      <Field label="Paste runs here" wide>
        <textarea
          aria-label="Paste runs here"
          rows={Math.min(MOST_ROWS, Math.max(LEAST_ROWS, text.split("\n").length))}
          value={text}
          onChange={(event) => setText(event.target.value)}
          placeholder={EXAMPLE}
        />
      </Field>
      <div className="row start-row">
        <Button onClick={() => reading.mutate(text)} disabled={text.trim() === ""}>
          Read the table
        </Button>
        <FileIn
          label="Open a CSV file"
          accept=".csv,.tsv,.txt,text/csv,text/plain"
          onFile={(file) =>
            void file.text().then((from) => {
              setText(from);
              reading.mutate(from);
            })
          }
        />
      </div>
      {reading.error ? (
        <p role="alert">{reading.error.message}</p>
      ) : runs.length > 0 ? (
        <>
          <ul className="plain-list">
            {runs.map((run) => {
              const of = nameOf(run.camera);
              return (
                <li key={run.id}>
                  {of?.name}, {of ? modeName(of, run.mode) : run.mode},{" "}
                  {temperatureText(run.ambient_c)}: {END_WORDS[run.end]} after{" "}
                  {minutesText(run.minutes)}
                </li>
              );
            })}
          </ul>
          <Button
            variant="contained"
            onClick={() => {
              onKeep(runs);
              setText("");
              reading.reset();
            }}
          >
            {runs.length === 1 ? "Keep this run" : `Keep these ${String(runs.length)} runs`}
          </Button>
        </>
      ) : null}
    </div>
  );
}
