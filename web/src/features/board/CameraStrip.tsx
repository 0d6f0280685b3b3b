import { cameraPlan, withCameraPlan } from "../../domain/edits";
import { linkedWith, withLinked } from "../../domain/planEdits";
import { ANGLES, type CameraPlan, MOUNTS } from "../../domain/types";
import { stripLeft } from "../../scale/lanes";
import { CheckIn, ChoiceIn } from "../../ui/fields";
import type { StripProps } from "./StretchStrip";
import { Strip } from "./Strip";

const BETWEEN: Record<NonNullable<CameraPlan["between"]>, string> = {
  off: "off",
  standby: "on standby",
  on: "goes on recording",
};

/** How a camera is carried: what is in it at the start, its angle, what it does between stretches. */
export function CameraStrip({
  document,
  kept,
  lanes,
  onClose,
  camera: id,
}: StripProps & { camera: string }) {
  const place = document.kit.cameras.findIndex((one) => one.id === id);
  const camera = document.kit.cameras[place];
  if (camera === undefined) return null;
  const { kit } = document;
  const plan = kept.state?.plan ?? document.plan;
  const now = cameraPlan(plan, id);
  const linked = linkedWith(plan, id);
  const put = (part: Partial<CameraPlan>) =>
    kept.edit((doc) => ({
      ...doc,
      plan: withCameraPlan(doc.plan, { ...cameraPlan(doc.plan, id), ...part }),
    }));
  const batteries = kit.batteries.filter((one) => one.family === camera.battery_family);
  const memory = camera.memory;
  const first = [{ value: "", name: "the first that is free" }];
  const left = stripLeft(lanes);
  return (
    <Strip
      title={`How ${camera.name} is carried`}
      left={left}
      top={0}
      phone={lanes.phone}
      onClose={onClose}
    >
      <div className="strip-fields">
        <ChoiceIn
          label="Battery at the start"
          value={now.battery ?? ""}
          choices={[...first, ...batteries.map((one) => ({ value: one.id, name: one.name }))]}
          onCommit={(value) => put({ battery: value === "" ? null : value })}
          wide
        />
        {memory.kind === "slot" || camera.slot != null ? (
          <ChoiceIn
            label="Card at the start"
            value={now.card ?? ""}
            choices={[
              ...first,
              ...kit.cards.map((one) => ({
                value: one.id,
                name: `${one.name}, ${String(one.gb)} GB`,
              })),
            ]}
            onCommit={(value) => put({ card: value === "" ? null : value })}
            wide
          />
        ) : (
          <p className="hint">Fixed memory, {memory.gb} GB.</p>
        )}
        <ChoiceIn
          label="Angle"
          value={now.angle ?? "sight"}
          choices={Object.entries(ANGLES).map(([value, name]) => ({
            value: value as keyof typeof ANGLES,
            name,
          }))}
          onCommit={(angle) => put({ angle })}
          wide
        />
        <ChoiceIn
          label="Between stretches and takes"
          value={now.between ?? "off"}
          choices={Object.entries(BETWEEN).map(([value, name]) => ({
            value: value as keyof typeof BETWEEN,
            name,
          }))}
          onCommit={(between) => put({ between })}
          wide
        />
        <ChoiceIn
          label="Mount"
          value={now.mount ?? "other"}
          choices={Object.entries(MOUNTS).map(([value, name]) => ({
            value: value as CameraPlan["mount"],
            name,
          }))}
          onCommit={(mount) => put({ mount })}
          wide
        />
        {kit.sources.length > 0 ? (
          <ChoiceIn
            label="Fed, where its set-up is on outside power, by"
            value={now.source ?? ""}
            choices={[
              { value: "", name: "nothing" },
              ...kit.sources.map((one) => ({ value: one.id, name: one.name })),
            ]}
            onCommit={(value) => put({ source: value === "" ? null : value })}
            wide
          />
        ) : null}
        {kit.cameras.length > 1 ? (
          <fieldset className="together">
            <legend>One action starts it together with</legend>
            {kit.cameras
              .filter((one) => one.id !== id)
              .map((other) => (
                <CheckIn
                  key={other.id}
                  label={other.name}
                  value={linked.includes(other.id)}
                  onCommit={(on) =>
                    kept.edit((doc) => ({ ...doc, plan: withLinked(doc.plan, id, other.id, on) }))
                  }
                />
              ))}
          </fieldset>
        ) : null}
        <CheckIn
          label="On a tether of its own"
          value={now.tethered}
          onCommit={(tethered) => put({ tethered })}
        />
        <CheckIn
          label="Radio left on when it is off"
          value={now.radio_left_on ?? false}
          onCommit={(radio_left_on) => put({ radio_left_on })}
        />
        {camera.start_gesture ? <p className="hint">Start: {camera.start_gesture}.</p> : null}
      </div>
    </Strip>
  );
}
