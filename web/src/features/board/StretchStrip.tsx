import { memo, useCallback, useDeferredValue, useMemo } from "react";
import type { KeptTrip } from "../../api/keptTrip";
import type { Cell } from "../../board/Drawing";
import type { Clock } from "../../domain/clock";
import {
  assignmentAt,
  cameraPlan,
  freshAssignment,
  withAssignment,
  withoutAssignment,
} from "../../domain/edits";
import { PATTERNS, patternOf } from "../../domain/patterns";
import {
  ANGLES,
  type Assignment,
  type Camera,
  type CameraPlan,
  FEATURES,
  IMPORTANCES,
  type LegServed,
  type Mount,
  MOUNTS,
  type Pattern,
  type Plan,
  type PlanDocument,
  type Rehearsal,
} from "../../domain/types";
import type { Elastic } from "../../scale/elastic";
import { type Lanes, stripLeft } from "../../scale/lanes";
import { CheckIn, ChoiceIn, Pick } from "../../ui/fields";
import { CopyHere } from "./CopyHere";
import { PatternFields } from "./PatternFields";
import { Picture } from "./Picture";
import { Serves } from "./Serves";
import { Strip } from "./Strip";
import { SwapHere } from "./SwapHere";
import { useDifferences } from "./useDifferences";

export interface StripProps {
  document: PlanDocument;
  rehearsal: Rehearsal;
  clock: Clock;
  kept: KeptTrip;
  lanes: Lanes;
  onClose: () => void;
}

type How = "off" | Pattern["kind"];

/** How one camera records on one leg or stop. Every change is kept at once, one undo step each. */
export function StretchStrip({
  document,
  rehearsal,
  clock,
  kept,
  lanes,
  onClose,
  cell,
  scale,
  served,
}: StripProps & { cell: Cell; scale: Elastic; served: LegServed | undefined }) {
  const place = document.kit.cameras.findIndex((one) => one.id === cell.camera);
  const camera = document.kit.cameras[place];
  const item = document.trip.items.find((one) => one.id === cell.item);
  const band = scale.bands.find((one) => one.id === cell.item);
  const plan = kept.state?.plan ?? document.plan;
  const asked = assignmentAt(plan, cell.camera, cell.item);
  const alternatives = useMemo(
    () => (camera ? alternativesOf(document.plan, camera, cell.item) : new Map<string, Plan>()),
    [document, camera, cell.item],
  );
  const differences = useDeferredValue(useDifferences(document, rehearsal, alternatives));
  const { edit } = kept;
  const editPlan = useCallback(
    (change: (old: Plan) => Plan) => edit((doc) => ({ ...doc, plan: change(doc.plan) })),
    [edit],
  );
  const put = useCallback(
    (part: Partial<Assignment>) => {
      if (camera === undefined) return;
      editPlan((old) => {
        const now = assignmentAt(old, camera.id, cell.item);
        return withAssignment(old, {
          ...(now ?? freshAssignment(old, camera, cell.item)),
          ...part,
        });
      });
    },
    [editPlan, camera, cell.item],
  );
  if (camera === undefined || item === undefined || band === undefined) return null;

  const pick = (how: How) => {
    if (how === "off") editPlan((old) => withoutAssignment(old, camera.id, item.id));
    else put({ pattern: patternOf(how, asked) });
  };
  const note = (how: How) =>
    how === (asked?.pattern.kind ?? "off")
      ? "now"
      : (differences.get(how)?.replace(" · ", "\n") ?? "");
  const left = stripLeft(lanes, place);
  const end = rehearsal.items.find((one) => one.id === item.id);
  return (
    <Strip
      title={`${camera.name}, ${item.name}`}
      left={left}
      top={band.y0}
      phone={lanes.phone}
      onClose={onClose}
    >
      {end ? (
        <p className="strip-when label">
          {clock.full(end.start_ms)} to {clock.time(end.end_ms)}
        </p>
      ) : null}
      <Pick
        label="How it records"
        value={asked?.pattern.kind ?? "off"}
        choices={[
          { value: "off", name: "off", note: note("off") },
          ...PATTERNS.map((value) => ({ value, name: value, note: note(value) })),
        ]}
        onPick={pick}
      />
      <Serves document={document} leg={served} camera={camera.id} asked={asked} put={put} />
      {asked ? (
        <Asked
          camera={camera}
          asked={asked}
          put={put}
          differences={differences}
          carried={cameraPlan(plan, camera.id)}
        />
      ) : null}
      {asked ? (
        <details className="strip-more">
          <summary>Light and settings</summary>
          <Picture document={document} camera={camera.id} item={item.id} />
        </details>
      ) : null}
      {item.kind === "stop" || item.hands === "free" ? (
        <SwapHere
          camera={camera}
          item={item.id}
          plan={plan}
          document={document}
          editPlan={editPlan}
        />
      ) : null}
      {item.kind === "stop" ? (
        <CopyHere
          camera={camera}
          item={item.id}
          plan={plan}
          document={document}
          editPlan={editPlan}
        />
      ) : null}
    </Strip>
  );
}

interface AskedProps {
  camera: Camera;
  asked: Assignment;
  put: (part: Partial<Assignment>) => void;
  differences: ReadonlyMap<string, string>;
  carried: CameraPlan;
}

const Asked = memo(function Asked({ camera, asked, put, differences, carried }: AskedProps) {
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
      <PatternFields pattern={asked.pattern} put={put} />
      {camera.presets.length === 0 ? null : (
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
          width="100%"
        />
      )}
      <ChoiceIn
        label="Mode"
        value={asked.mode}
        choices={modes}
        onCommit={(value) => put({ mode: value })}
        width="100%"
      />
      <ChoiceIn
        label="Set-up"
        value={asked.set_up}
        choices={camera.set_ups.map((one) => ({ value: one.id, name: one.name }))}
        onCommit={(set_up) => put({ set_up })}
        width="100%"
      />
      <Pick
        label="Importance"
        value={asked.importance ?? "want"}
        choices={IMPORTANCES.map((value) => ({ value, name: value }))}
        onPick={(importance) => put({ importance })}
      />
      {allowed.length > 0 ? (
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
        width="100%"
      />
      <ChoiceIn
        label="Mount"
        value={asked.mount ?? ""}
        choices={[
          { value: "", name: `as carried: ${MOUNTS[carried.mount]}` },
          ...Object.entries(MOUNTS).map(([value, name]) => ({ value, name })),
        ]}
        onCommit={(value) => put({ mount: value === "" ? null : (value as Mount) })}
        width="100%"
      />
    </div>
  );
});

/** The plans that the strip's buttons would make, by button. */
function alternativesOf(plan: Plan, camera: Camera, item: string): Map<string, Plan> {
  const asked = assignmentAt(plan, camera.id, item);
  const base = asked ?? freshAssignment(plan, camera, item);
  const made = new Map<string, Plan>();
  if (asked !== undefined)
    for (const mode of camera.modes)
      if (mode.id !== asked.mode)
        made.set(`mode:${mode.id}`, withAssignment(plan, { ...asked, mode: mode.id }));
  for (const how of PATTERNS)
    if (asked?.pattern.kind !== how)
      made.set(how, withAssignment(plan, { ...base, pattern: patternOf(how, asked) }));
  if (asked !== undefined) made.set("off", withoutAssignment(plan, camera.id, item));
  return made;
}
