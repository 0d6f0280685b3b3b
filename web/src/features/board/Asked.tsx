import { memo } from "react";
import {
  ANGLES,
  type Assignment,
  type Camera,
  type CameraPlan,
  FEATURES,
  IMPORTANCES,
  type Mount,
  MOUNTS,
} from "../../domain/types";
import { CheckIn, ChoiceIn, Pick } from "../../ui/fields";
import { PatternFields } from "./PatternFields";

interface AskedProps {
  camera: Camera;
  /** All that is edited is of this one camera: its modes, presets and set-ups can be chosen. */
  ofOne: boolean;
  asked: Assignment;
  put: (part: Partial<Assignment>) => void;
  differences: ReadonlyMap<string, string>;
  carried: CameraPlan;
  /** How long the stretch lasts. */
  lastsS: number;
}

/** The figures of what a camera is asked. */
export const Asked = memo(function Asked(props: AskedProps) {
  const { camera, ofOne, asked, put, differences, carried, lastsS } = props;
  const mode = camera.modes.find((one) => one.id === asked.mode);
  const allowed = FEATURES.filter(
    (name) => mode?.features?.includes(name) === true || asked.features?.includes(name) === true,
  );
  const modes = camera.modes.map((one) => {
    const difference = differences.get(`mode:${one.id}`);
    return {
      value: one.id,
      name:
        difference === undefined || one.id === asked.mode
          ? one.name
          : `${one.name}   ${difference}`,
    };
  });
  return (
    <div className="strip-fields">
      <PatternFields
        pattern={asked.pattern}
        put={put}
        loops={ofOne ? camera.loops : []}
        lastsS={lastsS}
      />
      {camera.presets.length === 0 || !ofOne ? null : (
        <ChoiceIn
          label="Preset"
          value={asked.preset ?? ""}
          choices={[
            { value: "", name: "none" },
            ...camera.presets.map((one) => ({
              value: one.id,
              name: `${String(one.slot)} ${one.name}`,
            })),
          ]}
          onCommit={(value) => {
            const preset = camera.presets.find((one) => one.id === value);
            put(preset ? { preset: preset.id, mode: preset.mode } : { preset: null });
          }}
          wide
        />
      )}
      {ofOne ? (
        <>
          <ChoiceIn
            label="Mode"
            value={asked.mode}
            choices={modes}
            onCommit={(value) => put({ mode: value })}
            wide
          />
          <ChoiceIn
            label="Set-up"
            value={asked.set_up}
            choices={camera.set_ups.map((one) => ({ value: one.id, name: one.name }))}
            onCommit={(set_up) => put({ set_up })}
            wide
          />
        </>
      ) : (
        <p className="hint">Modes and set-ups are each camera’s own: choose one camera for them.</p>
      )}
      <Pick
        label="Importance"
        value={asked.importance ?? "want"}
        choices={IMPORTANCES.map((value) => ({ value, name: value }))}
        onPick={(importance) => put({ importance })}
      />
      {allowed.length > 0 && ofOne ? (
        <div className="strip-checks" role="group" aria-label="Features that are on">
          {allowed.map((name) => (
            <CheckIn
              key={name}
              label={name}
              value={asked.features?.includes(name) === true}
              onCommit={(on) =>
                put({
                  features: FEATURES.filter((one) =>
                    one === name ? on : asked.features?.includes(one) === true,
                  ),
                })
              }
            />
          ))}
        </div>
      ) : null}
      <ChoiceIn
        label="Angle"
        value={asked.angle ?? ""}
        choices={[
          { value: "", name: `as carried: ${ANGLES[carried.angle]}` },
          ...Object.entries(ANGLES).map(([value, name]) => ({ value, name })),
        ]}
        onCommit={(value) => put({ angle: value === "" ? null : (value as keyof typeof ANGLES) })}
        wide
      />
      <ChoiceIn
        label="Mount"
        value={asked.mount ?? ""}
        choices={[
          { value: "", name: `as carried: ${MOUNTS[carried.mount]}` },
          ...Object.entries(MOUNTS).map(([value, name]) => ({ value, name })),
        ]}
        onCommit={(value) => put({ mount: value === "" ? null : (value as Mount) })}
        wide
      />
    </div>
  );
});
