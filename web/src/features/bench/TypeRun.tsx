import { Button } from "@mui/material";
import { useMemo } from "react";
import { faultOf } from "../../domain/bench";
import type { BenchRun, Camera } from "../../domain/types";
import { useDraft } from "../../ui/useDraft";
import { ConditionFields, OutcomeFields } from "./RunFields";

interface Props {
  camera: Camera;
  first: BenchRun;
  onKeep: (run: BenchRun) => void;
}

/** A run that was done elsewhere, typed in. */
export function TypeRun({ camera, first, onKeep }: Props) {
  const [typed, setTyped] = useDraft(`run.${camera.id}`);
  const run = useMemo(() => ({ ...first, ...partOf(typed) }), [first, typed]);
  const change = (changed: Partial<BenchRun>) => {
    setTyped(JSON.stringify({ ...partOf(typed), ...changed }));
  };
  const fault = faultOf(run);
  return (
    <div>
      <ConditionFields camera={camera} value={run} onChange={change} />
      <OutcomeFields run={run} onChange={change} />
      <div className="row start-row">
        <Button
          variant="contained"
          onClick={() => {
            setTyped("");
            onKeep(run);
          }}
          disabled={fault !== null}
        >
          Keep this run
        </Button>
        {fault === null ? null : <p role="alert">{fault}</p>}
      </div>
    </div>
  );
}

function partOf(typed: string): Partial<BenchRun> {
  return typed === "" ? {} : (JSON.parse(typed) as Partial<BenchRun>);
}
