import { Button } from "@mui/material";
import { useRef, useState } from "react";
import { type Start, variants } from "../../api/variants";
import { useTripHere } from "../../app/TripContext";

const SET: readonly Start[] = ["roll", "takes", "loop", "leave", "lighter", "safer", "sharper"];

/** The four schools of recording and three kits, each rehearsed on this trip. */
export function StartingSet({ onMade }: { onMade: (id: number) => void }) {
  const { id, kept } = useTripHere();
  const [making, setMaking] = useState<number | null>(null);
  const [error, setError] = useState<string | null>(null);
  const stop = useRef(false);
  const make = async () => {
    stop.current = false;
    setError(null);
    await kept.settled();
    for (const [place, start] of SET.entries()) {
      if (stop.current) break;
      setMaking(place);
      onMade((await variants.keep(id, { start, name: "", words: "" })).id);
    }
  };
  return (
    <section>
      <h2>A set to start from</h2>
      <p className="hint">
        The four ways of recording, and a lighter, a safer and a sharper kit, made from the plan as
        it is now. Yours stay; an older set gives way.
      </p>
      {making === null ? (
        <Button
          onClick={() => {
            make()
              .catch((problem: unknown) =>
                setError(problem instanceof Error ? problem.message : String(problem)),
              )
              .finally(() => setMaking(null));
          }}
        >
          Make the set
        </Button>
      ) : (
        <p role="status">
          Rehearsing {making + 1} of {SET.length}…{" "}
          <button
            type="button"
            className="plain link"
            onClick={() => {
              stop.current = true;
            }}
          >
            Stop
          </button>
        </p>
      )}
      {error === null ? null : <p role="alert">{error}</p>}
    </section>
  );
}
