import { Button, Slider } from "@mui/material";
import { useState } from "react";
import { msIn } from "../../domain/route";
import type { ItemTold, Leg } from "../../domain/types";
import { kilometresText } from "../../domain/units";
import { NameIn, NumberIn } from "../../ui/fields";
import type { Corrections } from "../../app/useCorrections";

interface Props {
  leg: Leg;
  told: ItemTold | null;
  /** The name of the next leg of the same way; null at the way's end. */
  next: string | null;
  corrections: Corrections;
  onHand: (ms: number) => void;
}

const STEP_M = 10;
const EDGE_M = 20;

/** Corrections of one leg on its way: cut, halt, merge, and its own pace again. */
export function WayFields({ leg, told, next, corrections, onHand }: Props) {
  const { from_m, to_m } = leg.on_way ?? { from_m: 0, to_m: 0 };
  const [at, setAt] = useState((from_m + to_m) / 2);
  const [minutes, setMinutes] = useState(15);
  const [name, setName] = useState("Halt");
  const { correct, busy } = corrections;
  const here = Math.min(to_m - EDGE_M, Math.max(from_m + EDGE_M, at));
  const item = leg.id;
  const short = to_m - from_m < 2 * EDGE_M;
  const move = (metres: number) => {
    setAt(metres);
    if (told !== null) onHand(msIn(told, metres));
  };
  return (
    <section className="way-fields" aria-label={`${leg.name} on its way`}>
      <h3>
        On its way, {kilometresText(from_m)} to {kilometresText(to_m)}
      </h3>
      <div className="row way-place">
        <Slider
          value={here}
          min={from_m + EDGE_M}
          max={Math.max(from_m + EDGE_M, to_m - EDGE_M)}
          step={STEP_M}
          shiftStep={500}
          disabled={short}
          onChange={(_, value) => move(value as number)}
          aria-label={`Place on ${leg.name}`}
          getAriaValueText={kilometresText}
          sx={{ width: 260 }}
        />
        <span className="label">at {kilometresText(here)}</span>
      </div>
      <div className="row row-tools">
        <Button
          size="small"
          disabled={busy || short}
          onClick={() => correct({ kind: "cut", item, at_m: here })}
        >
          Cut here
        </Button>
        <NameIn label="Halt’s name" value={name} onCommit={setName} />
        <NumberIn
          label="Halt for"
          unit="min"
          value={minutes}
          min={1}
          max={2880}
          whole
          onCommit={setMinutes}
        />
        <Button
          size="small"
          disabled={busy || short}
          onClick={() =>
            correct({ kind: "halt", item, at_m: here, name, duration_s: minutes * 60 })
          }
        >
          Halt here
        </Button>
        {next === null ? null : (
          <Button size="small" disabled={busy} onClick={() => correct({ kind: "merge", item })}>
            Make one with {next}
          </Button>
        )}
        {leg.timed_by === "hand" ? (
          <Button
            size="small"
            disabled={busy}
            onClick={() =>
              correct({ kind: "activity", item, activity: leg.activity }, (doc) => ({
                ...doc,
                trip: {
                  ...doc.trip,
                  items: doc.trip.items.map((one) =>
                    one.id === item ? { ...one, timed_by: "pace" } : one,
                  ),
                },
              }))
            }
          >
            Time it by the way again
          </Button>
        ) : null}
      </div>
    </section>
  );
}
