import { Button } from "@mui/material";
import { faultOf } from "../../domain/bench";
import type { BenchRun, Camera } from "../../domain/types";
import { useDraftOf } from "../../ui/useDraft";
import { ConditionFields, OutcomeFields } from "./RunFields";
import { SpecialFields } from "./SpecialFields";

interface Props {
  camera: Camera;
  first: BenchRun;
  onKeep: (run: BenchRun) => void;
}

/** A run that was done elsewhere, typed in. */
export function TypeRun({ camera, first, onKeep }: Props) {
  const [run, change, clear] = useDraftOf(`run.${camera.id}`, first);
  const fault = faultOf(run);
  return (
    <div>
      <ConditionFields camera={camera} value={run} onChange={change} />
      <OutcomeFields run={run} onChange={change} />
      <SpecialFields run={run} onChange={change} />
      <div className="row start-row">
        <Button
          variant="contained"
          onClick={() => {
            clear();
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
