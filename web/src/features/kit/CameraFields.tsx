import { CLASS_CHOICES } from "../../domain/cardClasses";
import * as assume from "../../domain/assumed";
import * as fieldLimits from "../../domain/limits";
import { Button } from "@mui/material";
import { useTellGone } from "../../app/gone";
import {
  freshMode,
  withCopiedCamera,
  withMemory,
  withoutUnit,
  withSlot,
} from "../../domain/kitEdits";
import type { Camera, Kit, KitState } from "../../domain/types";
import { withoutNames } from "../../domain/powerEdits";
import { CheckIn, ChoiceIn, NameIn, NumberIn, TextIn } from "../../ui/fields";
import { CameraMore } from "./CameraMore";
import type { Opened } from "./opened";
import { Loops } from "./Loops";
import { Mounts } from "./Mounts";
import { Presets } from "./Presets";
import { SetUps } from "./SetUps";
import { CostIn } from "./CarriedIn";

interface Props {
  kit: Kit;
  camera: Camera;
  uses: KitState["uses"];
  choose: (opened: Opened | null) => void;
  editKit: (change: (old: Kit) => Kit) => void;
}

/** One camera: what it is, its modes and its set-ups. What is left empty is assumed, and says so. */
export function CameraFields({ kit, camera, uses, choose, editKit }: Props) {
  const tellGone = useTellGone();
  const place = kit.cameras.indexOf(camera);
  const path = `kit.cameras[${String(place)}]`;
  const put = (part: Partial<Camera>) =>
    editKit((old) => ({
      ...old,
      cameras: old.cameras.map((one) => (one.id === camera.id ? { ...one, ...part } : one)),
    }));
  const usedIn = (kind: string, unit: string) =>
    uses.find((use) => use.kind === kind && use.unit === unit)?.trips ?? [];
  return (
    <section aria-label={`Camera ${camera.name}`}>
      <div className="row fields">
        <NameIn
          label="Name"
          path={`${path}.name`}
          value={camera.name}
          onCommit={(name) => put({ name })}
        />
        <TextIn
          label="Model"
          value={camera.model}
          onCommit={(model) => put({ model: model.slice(0, 60) })}
        />
        <NumberIn
          label="Mass"
          unit="g"
          value={camera.mass_g}
          {...fieldLimits.Camera.mass_g}
          onCommit={(mass_g) => put({ mass_g })}
        />
        <CostIn cost={camera.cost} onCost={(cost) => put({ cost })} />
        <ChoiceIn
          label="Battery family"
          path={`${path}.battery_family`}
          value={camera.battery_family}
          choices={kit.families.map((one) => ({ value: one.id, name: one.name }))}
          onCommit={(battery_family) => put({ battery_family })}
        />
        <MemoryFields
          camera={camera}
          put={put}
          onKind={(kind) => editKit((old) => withMemory(old, camera.id, kind))}
        />
      </div>
      <div className="row checks">
        <CheckIn
          label="Battery comes out"
          value={camera.battery_comes_out}
          onCommit={(battery_comes_out) => put({ battery_comes_out })}
        />
        <CheckIn
          label="Starts by itself at a set time"
          value={camera.starts_itself}
          onCommit={(starts_itself) => put({ starts_itself })}
        />
        <CheckIn
          label="Begins the next clip by itself"
          value={camera.continues_after_clip}
          onCommit={(continues_after_clip) => put({ continues_after_clip })}
        />
      </div>
      <StartFields camera={camera} put={put} />
      <Loops camera={camera} put={put} />
      <CameraMore camera={camera} path={path} put={put} />
      <p>
        Its modes hang on its plank: open a cord to change one.{" "}
        <button
          type="button"
          className="plain link"
          disabled={camera.modes.length >= 40}
          onClick={() => {
            const made = freshMode(camera.modes);
            put({ modes: [...camera.modes, made] });
            choose({ kind: "mode", camera: camera.id, id: made.id });
          }}
        >
          Add a mode
        </button>
      </p>
      <SetUps
        camera={camera}
        path={path}
        put={put}
        usedIn={(setUp) => usedIn("set_up", `${camera.id}/${setUp}`)}
      />
      <Mounts camera={camera} path={path} put={put} />
      <Presets
        camera={camera}
        path={path}
        put={put}
        usedIn={(preset) => usedIn("preset", `${camera.id}/${preset}`)}
      />
      <div className="row unit-tools">
        <Button
          disabled={kit.cameras.length >= 8}
          onClick={() => {
            const made = withCopiedCamera(kit, camera.id);
            editKit(() => made.kit);
            choose({ kind: "camera", id: made.camera });
          }}
        >
          Copy {camera.name}
        </Button>
        <Button
          color="error"
          onClick={() => {
            choose(null);
            editKit((old) =>
              withoutNames({ ...old, cameras: withoutUnit(old.cameras, camera.id) }),
            );
            tellGone(`Camera ${camera.name}`);
          }}
        >
          Delete {camera.name}
        </Button>
      </div>
      {usedIn("camera", camera.id).length > 0 ? (
        <p className="hint">Used by {usedIn("camera", camera.id).join(", ")}.</p>
      ) : null}
    </section>
  );
}

type Put = (part: Partial<Camera>) => void;

/** How it starts, when it is too hot, and its files: assumed until they are said. */
function StartFields({ camera, put }: { camera: Camera; put: Put }) {
  return (
    <details>
      <summary>Start, heat limits and files</summary>
      <div className="row fields">
        <NumberIn
          label="Boots in"
          unit="s"
          value={camera.boot_s}
          {...fieldLimits.Camera.boot_s}
          assumed={String(assume.boot_s)}
          onCommit={(boot_s) => put({ boot_s })}
          onClear={() => put({ boot_s: null })}
        />
        <NumberIn
          label="Standby"
          unit="W"
          value={camera.standby_w}
          {...fieldLimits.Camera.standby_w}
          assumed={String(assume.standby_w)}
          onCommit={(standby_w) => put({ standby_w })}
          onClear={() => put({ standby_w: null })}
        />
        <LimitFields camera={camera} put={put} />
        <NumberIn
          label="Largest file"
          unit="GB"
          value={camera.chapter_gb}
          {...fieldLimits.Camera.chapter_gb}
          assumed="none"
          onCommit={(chapter_gb) => put({ chapter_gb })}
          onClear={() => put({ chapter_gb: null })}
        />
        <NumberIn
          label="Longest file"
          unit="min"
          value={camera.chapter_min}
          {...fieldLimits.Camera.chapter_min}
          assumed="none"
          onCommit={(chapter_min) => put({ chapter_min })}
          onClear={() => put({ chapter_min: null })}
        />
        <TextIn
          label="Start gesture"
          value={camera.start_gesture}
          onCommit={(start_gesture) => put({ start_gesture: start_gesture.slice(0, 200) })}
          placeholder="short press starts"
        />
      </div>
    </details>
  );
}

interface MemoryProps {
  camera: Camera;
  put: Put;
  /** A card may go into the memory, or come out. */
  onKind: (kind: Camera["memory"]["kind"]) => void;
}

function MemoryFields({ camera, put, onKind }: MemoryProps) {
  const { memory, slot } = camera;
  return (
    <>
      <ChoiceIn
        label="Memory"
        value={memory.kind}
        choices={[
          { value: "slot", name: "card slot" },
          { value: "fixed", name: "fixed" },
        ]}
        onCommit={onKind}
      />
      {memory.kind === "slot" ? (
        <SlotFields slot={memory} put={(changed) => put({ memory: { ...memory, ...changed } })} />
      ) : (
        <>
          <NumberIn
            label="Size"
            unit="GB"
            value={memory.gb}
            {...fieldLimits.Card.gb}
            whole
            onCommit={(gb) => put({ memory: { ...memory, gb } })}
          />
          <NumberIn
            label="Of it reserved"
            unit="GB"
            value={memory.reserved_gb}
            {...fieldLimits.FixedMemory.reserved_gb}
            onCommit={(reserved_gb) => put({ memory: { ...memory, reserved_gb } })}
          />
          <CheckIn
            label="A module brings it a card slot"
            value={slot != null}
            onCommit={(on) => put(withSlot(camera, on))}
          />
          {slot == null ? null : (
            <>
              <SlotFields slot={slot} put={(changed) => put({ slot: { ...slot, ...changed } })} />
              <NumberIn
                label="Moves to the card at"
                unit="MB/s"
                value={camera.inside_mb_s}
                {...fieldLimits.Camera.inside_mb_s}
                assumed={String(assume.inside_mb_s)}
                onCommit={(inside_mb_s) => put({ inside_mb_s })}
                onClear={() => put({ inside_mb_s: null })}
              />
            </>
          )}
        </>
      )}
    </>
  );
}

type Slot = NonNullable<Camera["slot"]>;
const ANY_CLASS = { value: "any", name: "any" } as const;

/** Which cards go in: how large, and of what class its maker wants them at least. */
function SlotFields({ slot, put }: { slot: Slot; put: (changed: Partial<Slot>) => void }) {
  return (
    <>
      <NumberIn
        label="Largest card"
        unit="GB"
        value={slot.largest_gb}
        {...fieldLimits.CardSlot.largest_gb}
        whole
        onCommit={(largest_gb) => put({ largest_gb })}
      />
      <ChoiceIn
        label="Cards of at least"
        value={slot.slowest_class ?? "any"}
        choices={[ANY_CLASS, ...CLASS_CHOICES]}
        onCommit={(value) => put({ slowest_class: value === "any" ? null : value })}
      />
    </>
  );
}

const ASSUMED_LIMITS = { stop_c: assume.stop_c, restart_c: assume.restart_c };

function LimitFields({ camera, put }: { camera: Camera; put: Put }) {
  const limits = camera.limits;
  const now = limits ?? ASSUMED_LIMITS;
  return (
    <>
      <NumberIn
        label="Stops at"
        unit="°C"
        value={limits?.stop_c}
        {...fieldLimits.Limits.stop_c}
        assumed={String(assume.stop_c)}
        onCommit={(stop_c) =>
          put({
            limits: { stop_c, restart_c: Math.min(now.restart_c, stop_c - assume.least_apart_k) },
          })
        }
        onClear={() => put({ limits: null })}
      />
      <NumberIn
        label="Restarts below"
        unit="°C"
        value={limits?.restart_c}
        min={0}
        max={now.stop_c - assume.least_apart_k}
        assumed={String(assume.restart_c)}
        onCommit={(restart_c) => put({ limits: { ...now, restart_c } })}
        onClear={() => put({ limits: null })}
      />
    </>
  );
}
