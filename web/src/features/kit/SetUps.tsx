import { Button } from "@mui/material";
import { freshKey } from "../../domain/edits";
import { copyName, freshSetUp, withoutUnit, withUnit } from "../../domain/kitEdits";
import type { Camera, SetUp } from "../../domain/types";
import { CheckIn, NumberIn, TextIn } from "../../ui/fields";
import type { Going } from "./CameraEditor";

interface Props {
  camera: Camera;
  path: string;
  put: (part: Partial<Camera>) => void;
  usedIn: (setUp: string) => readonly string[];
  ask: (going: Going) => void;
}

/** How a camera is built for use: heat, air and hands follow it. */
export function SetUps({ camera, path, put, usedIn, ask }: Props) {
  const { set_ups } = camera;
  const remove = (setUp: SetUp) => {
    const trips = usedIn(setUp.id);
    ask({
      what: `set-up ${setUp.name} of ${camera.name}`,
      more:
        trips.length > 0
          ? `${trips.join(", ")} ${trips.length > 1 ? "ask" : "asks"} for it. Those stretches stay and the board says that the set-up is missing.`
          : "No trip uses it.",
      run: () => put({ set_ups: withoutUnit(set_ups, setUp.id) }),
    });
  };
  const copy = (setUp: SetUp) => {
    const name = copyName(
      setUp.name,
      set_ups.map((one) => one.name),
    );
    put({
      set_ups: [
        ...set_ups,
        {
          ...setUp,
          id: freshKey(
            name,
            set_ups.map((one) => one.id),
          ),
          name,
        },
      ],
    });
  };
  return (
    <>
      <h3>Set-ups</h3>
      <ul className="parts">
        {set_ups.map((setUp, place) => {
          const putSetUp = (part: Partial<SetUp>) =>
            put({ set_ups: withUnit(set_ups, { ...setUp, ...part }) });
          return (
            <li key={setUp.id} className="part" aria-label={`Set-up ${setUp.name}`}>
              <div className="row fields">
                <TextIn
                  label="Set-up"
                  path={`${path}.set_ups[${String(place)}].name`}
                  value={setUp.name}
                  check={(text) => (text.trim() === "" ? "Give it a name." : null)}
                  onCommit={(name) => putSetUp({ name: name.trim().slice(0, 60) })}
                  width={130}
                />
                <NumberIn
                  label="Holds heat"
                  unit="×"
                  value={setUp.case_factor}
                  min={0.1}
                  max={5}
                  onCommit={(case_factor) => putSetUp({ case_factor })}
                  width={110}
                />
                <NumberIn
                  label="Air helps"
                  unit="×"
                  value={setUp.case_a}
                  min={0}
                  max={2}
                  onCommit={(case_a) => putSetUp({ case_a })}
                  width={104}
                />
                <NumberIn
                  label="Air reaching it"
                  unit="%"
                  value={Math.round(setUp.air_share * 100)}
                  min={0}
                  max={100}
                  onCommit={(share) => putSetUp({ air_share: share / 100 })}
                  width={130}
                />
                <NumberIn
                  label="Swap"
                  unit="s"
                  value={setUp.swap_s}
                  min={0}
                  max={1800}
                  onCommit={(swap_s) => putSetUp({ swap_s })}
                  width={88}
                />
                <NumberIn
                  label="Gloved"
                  unit="s"
                  value={setUp.swap_gloved_s}
                  min={0}
                  max={1800}
                  onCommit={(swap_gloved_s) => putSetUp({ swap_gloved_s })}
                  width={92}
                />
                <NumberIn
                  label="Door blocked adds"
                  unit="s"
                  value={setUp.door_blocked_s}
                  min={0}
                  max={1800}
                  onCommit={(door_blocked_s) => putSetUp({ door_blocked_s })}
                  width={150}
                />
                <CheckIn
                  label="Swaps without stopping"
                  value={setUp.hot_swap}
                  onCommit={(hot_swap) => putSetUp({ hot_swap })}
                />
              </div>
              <div className="row part-tools">
                <button
                  type="button"
                  className="plain link"
                  disabled={set_ups.length >= 12}
                  onClick={() => copy(setUp)}
                  aria-label={`Copy set-up ${setUp.name}`}
                >
                  Copy
                </button>
                <button
                  type="button"
                  className="plain link"
                  disabled={set_ups.length === 1}
                  onClick={() => remove(setUp)}
                  aria-label={`Delete set-up ${setUp.name}`}
                >
                  Delete
                </button>
              </div>
            </li>
          );
        })}
      </ul>
      <Button
        disabled={set_ups.length >= 12}
        onClick={() => put({ set_ups: [...set_ups, freshSetUp(set_ups)] })}
      >
        Add a set-up
      </Button>
    </>
  );
}
