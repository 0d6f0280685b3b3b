import { Button } from "@mui/material";
import { useState } from "react";
import { KeepingMark } from "../../app/KeepingMark";
import { useTripHere } from "../../app/TripContext";
import { useStepCommands } from "../../app/useStepCommands";
import { withNewCamera } from "../../domain/kitEdits";
import type { Kit } from "../../domain/types";
import { NameIn } from "../../ui/fields";
import { useLedTo } from "../../ui/useLedTo";
import { Batteries } from "./Batteries";
import { CameraEditor } from "./CameraEditor";
import { Cards } from "./Cards";
import { Power } from "./Power";
import { Serving } from "./Serving";
import { ShelfView } from "./ShelfView";
import "./kit.css";

/** The kit shelf: what each mode lasts, and everything carried. */
export function KitPlace() {
  const { kept: trip, kit: kept } = useTripHere();
  const { state, edit, undo, redo } = kept;
  const [chosen, setChosen] = useState<string | null>(null);
  const kit = state?.kit;
  const led = useLedTo(state !== undefined);

  const can = useStepCommands("kit", "in the kit", kept);

  if (kit === undefined || state === undefined) return null;
  const ledCamera = /^kit\.cameras\[(\d+)\]/.exec(led ?? "")?.[1];
  const camera =
    kit.cameras.find((one) => one.id === chosen) ??
    kit.cameras[Number(ledCamera ?? 0)] ??
    kit.cameras[0];
  const editKit = (change: (old: Kit) => Kit) => edit((doc) => ({ ...doc, kit: change(doc.kit) }));
  const add = () => {
    const made = withNewCamera(kit);
    editKit(() => made.kit);
    setChosen(made.camera);
  };
  return (
    <main className="page kit-page">
      <ShelfView kit={kit} trip={trip.state?.trip ?? null} onMode={setChosen} />
      <div className="kit-tools row">
        <NameIn
          label="Name of the kit"
          value={state.name}
          onCommit={(name) => edit((doc) => ({ ...doc, name }))}
          width={230}
        />
        <Button onClick={undo} disabled={!can.undo}>
          Undo
        </Button>
        <Button onClick={redo} disabled={!can.redo}>
          Redo
        </Button>
        <KeepingMark keeping={kept.keeping} what="The kit" />
        <Button variant="contained" onClick={add} disabled={kit.cameras.length >= 8}>
          Add a camera
        </Button>
        <span className="hint">A new camera comes with one battery and one card.</span>
      </div>
      <div className="kit-columns">
        <div>
          <CameraEditor
            kit={kit}
            camera={camera}
            uses={state.uses}
            choose={setChosen}
            editKit={editKit}
          />
          <Serving kit={kit} editKit={editKit} />
        </div>
        <div>
          <Batteries kit={kit} editKit={editKit} />
          <Cards kit={kit} editKit={editKit} />
          <Power kit={kit} editKit={editKit} />
        </div>
      </div>
    </main>
  );
}
