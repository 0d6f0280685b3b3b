import { Button } from "@mui/material";
import { useState } from "react";
import type { BenchRun, Camera, RunningTest } from "../../domain/types";
import { Pick } from "../../ui/fields";
import { useDraftOf } from "../../ui/useDraft";
import { ConditionFields, type Conditions } from "./RunFields";

interface Props {
  camera: Camera;
  first: BenchRun;
  /** Another test of this camera runs already. */
  busy: boolean;
  onStart: (test: Omit<RunningTest, "id" | "camera">) => void;
}

const DEVICES = [
  { value: "1", name: "by hand", note: "you watch the camera" },
  { value: "60s", name: "simulated", note: "a minute each second" },
  { value: "1s", name: "simulated", note: "in real time" },
] as const;

/** Full battery, known room, record: the clock starts with the button. */
export function StartTest({ camera, first, busy, onStart }: Props) {
  const [conditions, change, clear] = useDraftOf<Conditions>(`test.${camera.id}`, first);
  const [device, setDevice] = useState<(typeof DEVICES)[number]["value"]>("1");
  const start = () => {
    clear();
    onStart({
      mode: conditions.mode,
      set_up: conditions.set_up,
      features: conditions.features,
      ambient_c: conditions.ambient_c,
      air_mps: conditions.air_mps,
      plugged: conditions.plugged,
      charge_start: conditions.charge_start,
      firmware: conditions.firmware,
      started_at: new Date().toISOString(),
      warned_at: null,
      pauses: [],
      device: device === "1" ? "by_hand" : "simulated",
      speed: device === "60s" ? 60 : 1,
    });
  };
  return (
    <div>
      <ConditionFields camera={camera} value={conditions} onChange={change} />
      <div className="row start-row">
        <Pick label="Who tells when it stops" value={device} choices={DEVICES} onPick={setDevice} />
        <Button variant="contained" size="large" onClick={start} disabled={busy}>
          Start the clock
        </Button>
      </div>
      <p className="hint">
        {busy
          ? "A test of this camera runs already: end it first."
          : "Press record and this button together. Watch a camera that charges or runs hot; stop if it smells, swells or is too hot to hold. Never charge below 0 °C. Follow its maker’s instructions."}
      </p>
    </div>
  );
}
