import { Button } from "@mui/material";
import * as limits from "../../domain/limits";
import { ANGLES, type Camera, type Mount, type Mounted, MOUNTS } from "../../domain/types";
import { CheckIn, ChoiceIn, NumberIn, TextIn } from "../../ui/fields";

interface Props {
  camera: Camera;
  path: string;
  put: (part: Partial<Camera>) => void;
}

const TETHERS: Record<Mounted["tether"], string> = {
  none: "none",
  own: "a line of its own",
  body: "to the body",
  vehicle: "to the vehicle",
};
const COVERED = ["door", "port"] as const;

/** A mount of which nothing is known yet. */
function freshMounted(mount: Mount): Mounted {
  return {
    mount,
    move_s: null,
    move_gloved_s: null,
    reach_s: null,
    pressed: true,
    holds_min: null,
    holds_to_c: null,
    sees: null,
    seen_over: "",
    covers: [],
    tether: "none",
  };
}

/** Where the camera sits: how long it takes to move it there, to have it filming, how long it holds. */
export function Mounts({ camera, path, put }: Props) {
  const known = camera.mounts.map((one) => one.mount);
  const next = (Object.keys(MOUNTS) as Mount[]).find((one) => !known.includes(one));
  const change = (mount: Mount, part: Partial<Mounted>) =>
    put({
      mounts: camera.mounts.map((one) => (one.mount === mount ? { ...one, ...part } : one)),
    });
  return (
    <>
      <h3>Where it sits</h3>
      <div className="row fields">
        <NumberIn
          label="Moving it takes"
          unit="s"
          path={`${path}.move_s`}
          value={camera.move_s}
          {...limits.Camera.move_s}
          onCommit={(move_s) => put({ move_s })}
        />
        <NumberIn
          label="Moving it, gloved"
          unit="s"
          value={camera.move_gloved_s}
          {...limits.Camera.move_gloved_s}
          onCommit={(move_gloved_s) => put({ move_gloved_s })}
        />
      </div>
      <ul className="parts">
        {camera.mounts.map((one) => (
          <li key={one.mount} className="part" aria-label={`mount ${MOUNTS[one.mount]}`}>
            <MountFields
              one={one}
              camera={camera}
              others={known.filter((mount) => mount !== one.mount)}
              change={(part) => change(one.mount, part)}
            />
            <div className="row part-tools">
              <button
                type="button"
                className="plain link"
                onClick={() =>
                  put({ mounts: camera.mounts.filter(({ mount }) => mount !== one.mount) })
                }
              >
                Forget {MOUNTS[one.mount]}
              </button>
            </div>
          </li>
        ))}
      </ul>
      <Button
        disabled={next === undefined}
        onClick={() => {
          if (next !== undefined) put({ mounts: [...camera.mounts, freshMounted(next)] });
        }}
      >
        Say more of a mount
      </Button>
    </>
  );
}

interface FieldsProps {
  one: Mounted;
  camera: Camera;
  others: readonly Mount[];
  change: (part: Partial<Mounted>) => void;
}

function MountFields({ one, camera, others, change }: FieldsProps) {
  return (
    <>
      <div className="row fields">
        <ChoiceIn
          label="On"
          value={one.mount}
          choices={(Object.entries(MOUNTS) as [Mount, string][])
            .filter(([mount]) => !others.includes(mount))
            .map(([value, name]) => ({
              value,
              name: value === "other" ? "a pocket, or other" : name,
            }))}
          onCommit={(mount) => change({ mount })}
        />
        <NumberIn
          label="Onto it"
          unit="s"
          value={one.move_s}
          {...limits.Mounted.move_s}
          assumed={String(camera.move_s)}
          onCommit={(move_s) => change({ move_s })}
          onClear={() => change({ move_s: null, move_gloved_s: null })}
        />
        <NumberIn
          label="Onto it, gloved"
          unit="s"
          value={one.move_gloved_s}
          {...limits.Mounted.move_gloved_s}
          assumed={String(one.move_s ?? camera.move_gloved_s)}
          onCommit={(move_gloved_s) =>
            change({ move_gloved_s, move_s: one.move_s ?? camera.move_s })
          }
          onClear={() => change({ move_gloved_s: null })}
        />
        <NumberIn
          label="Films after"
          unit="s"
          hint="from there, in hand and booted"
          value={one.reach_s}
          {...limits.Mounted.reach_s}
          assumed="not said"
          onCommit={(reach_s) => change({ reach_s })}
          onClear={() => change({ reach_s: null })}
        />
        <CheckIn
          label="a hand reaches its button"
          value={one.pressed}
          onCommit={(pressed) => change({ pressed })}
        />
      </div>
      <details>
        <summary>How it holds, what it sees and blocks</summary>
        <div className="row fields">
          <NumberIn
            label="Holds without a look"
            unit="min"
            value={one.holds_min}
            {...limits.Mounted.holds_min}
            assumed="long"
            onCommit={(holds_min) => change({ holds_min })}
            onClear={() => change({ holds_min: null })}
          />
          <NumberIn
            label="Holds up to"
            unit="°C"
            value={one.holds_to_c}
            {...limits.Mounted.holds_to_c}
            assumed="any"
            onCommit={(holds_to_c) => change({ holds_to_c })}
            onClear={() => change({ holds_to_c: null })}
          />
          <ChoiceIn
            label="Sees"
            value={one.sees ?? ""}
            choices={[
              { value: "", name: "any angle" },
              ...Object.entries(ANGLES).map(([value, name]) => ({ value, name })),
            ]}
            onCommit={(value) =>
              change({ sees: value === "" ? null : (value as keyof typeof ANGLES) })
            }
          />
          <TextIn
            label="In its picture"
            value={one.seen_over}
            placeholder="a strap, the chin"
            onCommit={(text) => change({ seen_over: text.slice(0, 60) })}
          />
          <ChoiceIn
            label="Tether"
            value={one.tether}
            choices={Object.entries(TETHERS).map(([value, name]) => ({
              value: value as Mounted["tether"],
              name,
            }))}
            onCommit={(tether) => change({ tether })}
          />
          {COVERED.map((what) => (
            <CheckIn
              key={what}
              label={`blocks its ${what}`}
              value={one.covers.includes(what)}
              onCommit={(on) =>
                change({
                  covers: COVERED.filter((it) => (it === what ? on : one.covers.includes(it))),
                })
              }
            />
          ))}
        </div>
      </details>
    </>
  );
}
