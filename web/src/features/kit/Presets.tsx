import * as assume from "../../domain/assumed";
import * as limits from "../../domain/limits";
import { freeSlot, freshPreset } from "../../domain/kitEdits";
import { type Camera, CODECS, type Preset } from "../../domain/types";
import { CheckIn, ChoiceIn, NameIn, NumberIn, TextIn } from "../../ui/fields";
import { Parts } from "./Parts";
import { Steadies } from "./Steadies";

interface Props {
  camera: Camera;
  path: string;
  put: (part: Partial<Camera>) => void;
  usedIn: (preset: string) => readonly string[];
}

const STABILISED: Record<Preset["stabilised"], string> = {
  off: "off",
  on: "on",
  strong: "strong, crops",
};
const SHUTTER_IS: Record<Preset["shutter_is"], string> = {
  exact: "exactly",
  or_shorter: "or shorter",
  or_longer: "or longer",
  follows: "follows the rate",
};
const MOST = 20;

/** Saved settings by slot, as on the camera: nobody changes menus with gloves on. */
export function Presets({ camera, path, put, usedIn }: Props) {
  return (
    <>
      <h3>Presets</h3>
      <p className="hint">
        Set them on the camera at home, one a slot; on the board a stretch names its preset.
        {camera.start_gesture === "" ? "" : ` Start: ${camera.start_gesture}.`}
      </p>
      <Steadies camera={camera} put={put} />
      <Parts
        what="preset"
        camera={camera.name}
        parts={camera.presets}
        most={MOST}
        optional
        put={(presets) => put({ presets })}
        fresh={() => freshPreset(camera)}
        own={(taken) => ({ slot: freeSlot(taken) })}
        usedIn={usedIn}
        fields={(preset, place, change) => (
          <Fields
            preset={preset}
            camera={camera}
            path={`${path}.presets[${String(place)}]`}
            change={change}
          />
        )}
      />
    </>
  );
}

interface FieldsProps {
  preset: Preset;
  camera: Camera;
  path: string;
  change: (part: Partial<Preset>) => void;
}

function Fields({ preset, camera, path, change }: FieldsProps) {
  const others = camera.presets.filter((one) => one.id !== preset.id);
  return (
    <div className="row fields">
      <ChoiceIn
        label="Slot"
        value={String(preset.slot)}
        choices={Array.from({ length: MOST }, (_, place) => String(place + 1))
          .filter((slot) => others.every((one) => String(one.slot) !== slot))
          .map((slot) => ({ value: slot, name: slot }))}
        onCommit={(slot) => change({ slot: Number(slot) })}
      />
      <NameIn
        label="Preset"
        path={`${path}.name`}
        value={preset.name}
        onCommit={(name) => change({ name })}
      />
      <ChoiceIn
        label="Mode"
        value={preset.mode}
        choices={camera.modes.map((one) => ({ value: one.id, name: one.name }))}
        onCommit={(mode) => change({ mode })}
      />
      <ChoiceIn
        label="Stabilised"
        value={preset.stabilised}
        choices={Object.entries(STABILISED).map(([value, name]) => ({
          value: value as Preset["stabilised"],
          name,
        }))}
        onCommit={(stabilised) => change({ stabilised })}
      />
      <NumberIn
        label="Shutter, one part in"
        unit="of a second"
        value={preset.shutter_per_s}
        {...limits.Preset.shutter_per_s}
        assumed="auto"
        onCommit={(shutter_per_s) => change({ shutter_per_s })}
        onClear={() => change({ shutter_per_s: null })}
      />
      <ChoiceIn
        label="That time"
        value={preset.shutter_is}
        choices={Object.entries(SHUTTER_IS).map(([value, name]) => ({
          value: value as Preset["shutter_is"],
          name,
        }))}
        onCommit={(shutter_is) => change({ shutter_is })}
      />
      <NumberIn
        label="Exposure bias"
        unit="EV"
        value={preset.exposure_ev}
        {...limits.Preset.exposure_ev}
        onCommit={(exposure_ev) => change({ exposure_ev })}
      />
      <NumberIn
        label="Bias up to"
        unit="EV"
        value={preset.exposure_to_ev}
        {...limits.Preset.exposure_to_ev}
        assumed="the same"
        onCommit={(exposure_to_ev) => change({ exposure_to_ev })}
        onClear={() => change({ exposure_to_ev: null })}
      />
      <NumberIn
        label="White balance"
        unit="K"
        value={preset.white_balance_k}
        {...limits.Preset.white_balance_k}
        whole
        assumed="auto"
        onCommit={(white_balance_k) => change({ white_balance_k })}
        onClear={() => change({ white_balance_k: null })}
      />
      <NumberIn
        label="Least gain"
        unit="ISO"
        value={preset.least_gain_iso}
        {...limits.Preset.least_gain_iso}
        whole
        assumed={String(camera.base_iso ?? assume.base_iso)}
        onCommit={(least_gain_iso) => change({ least_gain_iso })}
        onClear={() => change({ least_gain_iso: null })}
      />
      <NumberIn
        label="Most gain"
        unit="ISO"
        value={preset.most_gain_iso}
        {...limits.Preset.most_gain_iso}
        whole
        assumed={String(camera.most_iso ?? assume.most_iso)}
        onCommit={(most_gain_iso) => change({ most_gain_iso })}
        onClear={() => change({ most_gain_iso: null })}
      />
      <NumberIn
        label="Microphone"
        unit="dB"
        value={preset.microphone_db}
        {...limits.Preset.microphone_db}
        assumed="auto"
        onCommit={(microphone_db) => change({ microphone_db })}
        onClear={() => change({ microphone_db: null })}
      />
      <NumberIn
        label="Filter fitted"
        unit="stops"
        value={preset.filter_stops}
        {...limits.Preset.filter_stops}
        onCommit={(filter_stops) => change({ filter_stops })}
      />
      <NumberIn
        label="To be slowed"
        unit="times"
        path={`${path}.slowing`}
        value={preset.slowing}
        {...limits.Preset.slowing}
        assumed="no"
        onCommit={(slowing) => change({ slowing })}
        onClear={() => change({ slowing: null })}
      />
      <RestOfPreset preset={preset} change={change} />
    </div>
  );
}

/** Codec, field of view, and whatever else is set. */
function RestOfPreset({ preset, change }: Pick<FieldsProps, "preset" | "change">) {
  return (
    <>
      <ChoiceIn
        label="Codec"
        value={preset.codec ?? ""}
        choices={[
          { value: "", name: "as it is" },
          ...CODECS.map((value) => ({ value, name: value.toUpperCase() })),
        ]}
        onCommit={(value) => change({ codec: value === "" ? null : (value as Preset["codec"]) })}
      />
      <TextIn
        label="Field of view"
        value={preset.field_of_view}
        placeholder="wide"
        onCommit={(text) => change({ field_of_view: text.slice(0, 30) })}
      />
      <CheckIn
        label="turned by 180°"
        value={preset.turned}
        onCommit={(turned) => change({ turned })}
      />
      <TextIn
        label="What else is set"
        value={preset.note}
        onCommit={(text) => change({ note: text.slice(0, 200) })}
      />
    </>
  );
}
