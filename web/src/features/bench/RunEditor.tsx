import { Button } from "@mui/material";
import { useState } from "react";
import { faultOf, modeName } from "../../domain/bench";
import type { BenchRun, Camera, RunTold } from "../../domain/types";
import { TextIn } from "../../ui/fields";
import { ConditionFields, OutcomeFields } from "./RunFields";
import { SpecialFields } from "./SpecialFields";

interface Props {
  camera: Camera;
  run: BenchRun;
  told: RunTold | undefined;
  onChange: (change: (old: BenchRun) => BenchRun) => void;
  onDelete: () => void;
  onClose: () => void;
}

const LONGEST_REASON = 200;

/** One run: everything noted of it, whether it counts, and out with it. */
export function RunEditor({ camera, run, told, onChange, onDelete, onClose }: Props) {
  const [fault, setFault] = useState<string | null>(null);
  const change = (changed: Partial<BenchRun>) => {
    const wrong = faultOf({ ...run, ...changed });
    setFault(wrong);
    if (wrong === null) onChange((old) => ({ ...old, ...changed }));
  };
  return (
    <section aria-label="The chosen run">
      <div className="row between">
        <h2>
          {modeName(camera, run.mode)},{" "}
          {(run.at ?? "without a date").replace("T", " ").slice(0, 16)}
        </h2>
        <button type="button" className="plain link" onClick={onClose}>
          Close
        </button>
      </div>
      {told === undefined ? null : <p>{told.words}</p>}
      <ConditionFields camera={camera} value={run} onChange={change} />
      <OutcomeFields run={run} onChange={change} />
      <SpecialFields run={run} onChange={change} />
      {fault === null ? null : <p role="alert">{fault} Nothing was changed.</p>}
      <div className="row fields">
        <TextIn
          label="Does not count because"
          value={run.excluded ?? ""}
          placeholder="counts"
          check={(text) =>
            text.length > LONGEST_REASON ? "Two hundred characters at most." : null
          }
          onCommit={(text) => change({ excluded: text.trim() === "" ? null : text.trim() })}
        />
        {run.excluded == null ? null : (
          <Button onClick={() => change({ excluded: null })}>Let it count again</Button>
        )}
        <Button color="error" onClick={onDelete}>
          Delete this run
        </Button>
      </div>
    </section>
  );
}
