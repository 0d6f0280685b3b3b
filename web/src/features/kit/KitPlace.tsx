import { useState } from "react";
import { NextThing } from "../../app/NextThing";
import { useTripHere } from "../../app/TripContext";
import { useKeepingOf } from "../../app/useStepCommands";
import { withFitted } from "../../domain/edits";
import { kitFaults } from "../../domain/kitEdits";
import type { Kit } from "../../domain/types";
import { NameIn } from "../../ui/fields";
import { useLedTo } from "../../ui/useLedTo";
import { CellShelf } from "./CellShelf";
import { Lengths } from "./Lengths";
import { OpenSheet } from "./OpenSheet";
import { drawn, markOf, type Opened, openedAt } from "./opened";
import { ShelfView } from "./ShelfView";
import { Wells } from "./Wells";
import "./kit.css";

/** The kit shelf: what each mode lasts, and everything carried, edited where it is drawn. */
export function KitPlace() {
  const { kept: trip, kit: kept } = useTripHere();
  const { state, edit } = kept;
  const kit = state?.kit;
  const [chosen, setChosen] = useState<Opened | null | undefined>(undefined);
  const led = useLedTo(state !== undefined);
  useKeepingOf("kit", kept.keeping);
  if (kit === undefined || state === undefined) return null;
  const opened = chosen === undefined && led !== null ? openedAt(kit, led) : (chosen ?? null);
  const editKit = (change: (old: Kit) => Kit) => edit((doc) => ({ ...doc, kit: change(doc.kit) }));
  const fit = (camera: string, battery: string) =>
    trip.edit((doc) => ({ ...doc, plan: withFitted(doc.plan, camera, battery) }));
  const close = () => {
    setChosen(null);
    if (opened !== null) drawn(document, markOf(opened))?.focus();
  };
  const shared = { kit, editKit, onOpen: setChosen };
  return (
    <main className="kit-page">
      <NextThing />
      <ShelfView kit={kit} kept={state} trip={trip.state?.trip ?? null} onOpen={setChosen}>
        <NameIn
          label="Kit"
          value={state.name}
          onCommit={(name) => edit((doc) => ({ ...doc, name }))}
        />
        <button
          type="button"
          className="plain link"
          data-unit="serving/"
          onClick={() => setChosen({ kind: "serving", id: "" })}
        >
          What serves where
        </button>
        <button
          type="button"
          className="add-camera"
          data-unit="new/"
          disabled={kit.cameras.length >= 8}
          onClick={() => setChosen({ kind: "new", id: "" })}
        >
          Add a camera
        </button>
      </ShelfView>
      {kitFaults(kit).map((fault) => (
        <p key={fault} className="kit-fault" role="status">
          {fault}
        </p>
      ))}
      <CellShelf {...shared} plan={trip.state?.plan ?? null} fit={fit} />
      <div className="kit-lower">
        <Lengths {...shared} />
        <Wells {...shared} />
      </div>
      <OpenSheet {...shared} opened={opened} uses={state.uses} onOpen={setChosen} onClose={close} />
    </main>
  );
}
