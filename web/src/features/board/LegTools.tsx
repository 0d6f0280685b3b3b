import { Button } from "@mui/material";
import type { Corrections } from "../../app/useCorrections";
import type { Clock } from "../../domain/clock";
import { canPart, partedAfter } from "../../domain/routeEdits";
import type { Leg, Rehearsal, Trip } from "../../domain/types";

interface Props {
  leg: Leg;
  trip: Trip;
  rehearsal: Rehearsal;
  clock: Clock;
  handMs: number;
  corrections: Corrections;
  onDone: () => void;
}

/** A leg cut in two, halted on, or made one with the next; where the hand stands, or half way. */
export function LegTools({ leg, trip, rehearsal, clock, handMs, corrections, onDone }: Props) {
  const laid = rehearsal.items.find((one) => one.id === leg.id);
  const place = trip.items.findIndex((one) => one.id === leg.id);
  const next = trip.items.slice(place + 1).find((one) => one.kind === "leg");
  if (laid === undefined) return null;
  const short = !canPart(leg);
  const after_s = partedAfter(leg, laid.start_ms, handMs);
  const at = clock.time(laid.start_ms + after_s * 1000);
  const correct = (...asked: Parameters<Corrections["correct"]>) => {
    onDone();
    corrections.correct(...asked);
  };
  return (
    <fieldset className="together leg-tools" disabled={corrections.busy}>
      <legend>The leg itself</legend>
      <div className="row">
        <Button
          size="small"
          disabled={short}
          onClick={() => correct({ kind: "cut", item: leg.id, after_s })}
        >
          Split at {at}
        </Button>
        <Button
          size="small"
          disabled={short}
          onClick={() =>
            correct({ kind: "halt", item: leg.id, after_s, name: "Halt", duration_s: 900 })
          }
        >
          Halt at {at}
        </Button>
        {next === undefined ? null : (
          <Button size="small" onClick={() => correct({ kind: "merge", item: leg.id })}>
            Join with {next.name}
          </Button>
        )}
      </div>
      <p className="hint">The hand says where; what is asked is asked on both parts.</p>
    </fieldset>
  );
}
