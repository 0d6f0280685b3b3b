import * as limits from "../../domain/limits";
import { freshSetUp } from "../../domain/kitEdits";
import type { Camera, SetUp } from "../../domain/types";
import { CheckIn, ChoiceIn, NameIn, NumberIn, PercentIn } from "../../ui/fields";
import { Parts } from "./Parts";

interface Props {
  camera: Camera;
  path: string;
  put: (part: Partial<Camera>) => void;
  usedIn: (setUp: string) => readonly string[];
}

/** How a camera is built for use: heat, air and hands follow it. */
export function SetUps({ camera, path, put, usedIn }: Props) {
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
            <NumberIn
              label="Warms slower"
              unit="× the bare camera"
              value={setUp.lag_factor}
              {...limits.SetUp.lag_factor}
              onCommit={(lag_factor) => putSetUp({ lag_factor })}
            />
            {camera.slot == null ? null : (
              <ChoiceIn
                label="Writes to"
                value={setUp.writes_to}
                choices={[
                  { value: "own", name: "its own memory" },
                  { value: "card", name: "the card" },
                ]}
                onCommit={(writes_to) => putSetUp({ writes_to })}
              />
            )}
            <MoreOfSetUp setUp={setUp} putSetUp={putSetUp} />
            <CheckIn
              label="Charges while it records"
              value={setUp.charges_recording}
              onCommit={(charges_recording) => putSetUp({ charges_recording })}
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

interface MoreProps {
  setUp: SetUp;
  putSetUp: (part: Partial<SetUp>) => void;
}

/** Its longest clip and run of frames so built, and how deep and long it may go under water. */
function MoreOfSetUp({ setUp, putSetUp }: MoreProps) {
  return (
    <>
      <NumberIn
        label="Longest clip so"
        unit="s"
        value={setUp.clip_limit_s}
        {...limits.SetUp.clip_limit_s}
        whole
        assumed="the mode’s"
        onCommit={(clip_limit_s) => putSetUp({ clip_limit_s })}
        onClear={() => putSetUp({ clip_limit_s: null })}
      />
      <NumberIn
        label="Longest run of frames"
        unit="s"
        value={setUp.lapse_limit_s}
        {...limits.SetUp.lapse_limit_s}
        whole
        assumed="none"
        onCommit={(lapse_limit_s) => putSetUp({ lapse_limit_s })}
        onClear={() => putSetUp({ lapse_limit_s: null })}
      />
      {setUp.water === "under" ? (
        <>
          <NumberIn
            label="As deep as"
            unit="m"
            value={setUp.depth_m}
            {...limits.SetUp.depth_m}
            assumed="not said"
            onCommit={(depth_m) => putSetUp({ depth_m })}
            onClear={() => putSetUp({ depth_m: null })}
          />
          <NumberIn
            label="For as long as"
            unit="min"
            value={setUp.under_min}
            {...limits.SetUp.under_min}
            assumed="not said"
            onCommit={(under_min) => putSetUp({ under_min })}
            onClear={() => putSetUp({ under_min: null })}
          />
        </>
      ) : null}
    </>
  );
}
