import * as limits from "../../domain/limits";
import { freshSetUp } from "../../domain/kitEdits";
import type { Camera } from "../../domain/types";
import { CheckIn, ChoiceIn, NameIn, NumberIn, PercentIn } from "../../ui/fields";
import { type Going, Parts } from "./Parts";

interface Props {
  camera: Camera;
  path: string;
  put: (part: Partial<Camera>) => void;
  usedIn: (setUp: string) => readonly string[];
  ask: (going: Going) => void;
}

/** How a camera is built for use: heat, air and hands follow it. */
export function SetUps({ camera, path, put, usedIn, ask }: Props) {
  return (
    <>
      <h3>Set-ups</h3>
      <Parts
        what="set-up"
        camera={camera.name}
        parts={camera.set_ups}
        most={12}
        put={(set_ups) => put({ set_ups })}
        fresh={freshSetUp}
        usedIn={usedIn}
        ask={ask}
        fields={(setUp, place, putSetUp) => (
          <div className="row fields">
            <NameIn
              label="Set-up"
              path={`${path}.set_ups[${String(place)}].name`}
              value={setUp.name}
              onCommit={(name) => putSetUp({ name })}
            />
            <NumberIn
              label="Keeps heat in"
              unit="× the bare camera"
              value={setUp.case_factor}
              {...limits.SetUp.case_factor}
              onCommit={(case_factor) => putSetUp({ case_factor })}
            />
            <NumberIn
              label="Moving air cools it"
              unit="× the bare camera"
              value={setUp.case_a}
              {...limits.SetUp.case_a}
              onCommit={(case_a) => putSetUp({ case_a })}
            />
            <PercentIn
              label="Air reaching it"
              value={setUp.air_share}
              onCommit={(air_share) => putSetUp({ air_share })}
            />
            <NumberIn
              label="Swap"
              unit="s"
              value={setUp.swap_s}
              {...limits.SetUp.swap_s}
              onCommit={(swap_s) => putSetUp({ swap_s })}
            />
            <NumberIn
              label="Gloved"
              unit="s"
              value={setUp.swap_gloved_s}
              {...limits.SetUp.swap_gloved_s}
              onCommit={(swap_gloved_s) => putSetUp({ swap_gloved_s })}
            />
            <NumberIn
              label="Door blocked adds"
              unit="s"
              value={setUp.door_blocked_s}
              {...limits.SetUp.door_blocked_s}
              onCommit={(door_blocked_s) => putSetUp({ door_blocked_s })}
            />
            <ChoiceIn
              label="Runs on"
              value={setUp.power}
              choices={[
                { value: "battery", name: "its battery" },
                { value: "outside", name: "outside power, battery in" },
                { value: "outside_only", name: "outside power, battery out" },
              ]}
              onCommit={(power) => putSetUp({ power })}
            />
            <ChoiceIn
              label="Water it bears"
              value={setUp.water}
              choices={[
                { value: "dry", name: "no water" },
                { value: "splash", name: "splashes" },
                { value: "under", name: "under water" },
              ]}
              onCommit={(water) => putSetUp({ water })}
            />
            <CheckIn
              label="Swaps without stopping"
              value={setUp.hot_swap}
              onCommit={(hot_swap) => putSetUp({ hot_swap })}
            />
          </div>
        )}
      />
    </>
  );
}
