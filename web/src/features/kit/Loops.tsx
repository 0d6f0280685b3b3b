import { Button } from "@mui/material";
import { useTellGone } from "../../app/gone";
import * as limits from "../../domain/limits";
import type { Camera } from "../../domain/types";
import { NumberIn } from "../../ui/fields";

interface Props {
  camera: Camera;
  put: (part: Partial<Camera>) => void;
}

const MOST = 12;

/** The loops that a camera offers, each by its length and that of its segments; none said: any. */
export function Loops({ camera, put }: Props) {
  const change = (place: number, part: Partial<Camera["loops"][number]>) =>
    put({ loops: camera.loops.map((one, n) => (n === place ? { ...one, ...part } : one)) });
  const tellGone = useTellGone();
  const last = camera.loops.at(-1);
  return (
    <details>
      <summary>
        Loops it offers
        {camera.loops.length === 0
          ? " (any)"
          : `: ${camera.loops.map((one) => `${String(one.length_s)} s`).join(", ")}`}
      </summary>
      {camera.loops.map((one, place) => (
        <div
          className="row fields"
          key={place}
          role="group"
          aria-label={`Loop ${String(place + 1)}`}
        >
          <NumberIn
            label="Length"
            unit="s"
            value={one.length_s}
            {...limits.LoopOffered.length_s}
            whole
            onCommit={(length_s) =>
              change(place, {
                length_s,
                segment_s: Math.min(one.segment_s, Math.floor(length_s / 2)),
              })
            }
          />
          <NumberIn
            label="A segment"
            unit="s"
            value={one.segment_s}
            min={1}
            max={Math.floor(one.length_s / 2)}
            whole
            onCommit={(segment_s) => change(place, { segment_s })}
          />
          <button
            type="button"
            className="plain link"
            onClick={() => {
              put({ loops: camera.loops.filter((_, n) => n !== place) });
              tellGone(`Loop ${String(place + 1)} of ${camera.name}`);
            }}
          >
            Delete loop {place + 1}
          </button>
        </div>
      ))}
      <Button
        size="small"
        disabled={camera.loops.length >= MOST}
        onClick={() =>
          put({
            loops: [
              ...camera.loops,
              last ? { ...last, length_s: last.length_s * 2 } : { length_s: 300, segment_s: 60 },
            ],
          })
        }
      >
        Add a loop
      </Button>
    </details>
  );
}
