import * as limits from "../../domain/limits";
import { AIRS, END_CHOICES } from "../../domain/bench";
import type { BenchRun, Camera, FeatureName } from "../../domain/types";
import { CheckIn, ChoiceIn, NumberIn, PercentIn, TextIn } from "../../ui/fields";

export type Conditions = Pick<
  BenchRun,
  "mode" | "set_up" | "features" | "ambient_c" | "air_mps" | "plugged" | "charge_start" | "firmware"
>;

interface ConditionProps {
  camera: Camera;
  value: Conditions;
  onChange: (changed: Partial<Conditions>) => void;
}

const OTHER_AIR = "other";

/** In which room and how built a camera records. */
export function ConditionFields({ camera, value, onChange }: ConditionProps) {
  const mode = camera.modes.find((one) => one.id === value.mode);
  const setUp = camera.set_ups.find((one) => one.id === value.set_up);
  const fed = setUp !== undefined && setUp.power !== "battery";
  const air = AIRS.find((one) => Number(one.value) === value.air_mps)?.value ?? OTHER_AIR;
  const toggle = (feature: FeatureName, on: boolean) =>
    onChange({
      features: on ? [...value.features, feature] : value.features.filter((one) => one !== feature),
    });
  return (
    <>
      <div className="row fields">
        <ChoiceIn
          label="Mode"
          value={value.mode}
          choices={camera.modes.map((one) => ({ value: one.id, name: one.name }))}
          onCommit={(id) => onChange({ mode: id })}
        />
        <ChoiceIn
          label="Set-up"
          value={value.set_up}
          choices={camera.set_ups.map((one) => ({ value: one.id, name: one.name }))}
          onCommit={(id) => {
            const chosen = camera.set_ups.find((one) => one.id === id);
            onChange({ set_up: id, plugged: chosen !== undefined && chosen.power !== "battery" });
          }}
        />
        <NumberIn
          label="Room"
          unit="°C"
          value={value.ambient_c}
          {...limits.Air.ambient_c}
          onCommit={(ambient_c) => onChange({ ambient_c })}
        />
        <ChoiceIn
          label="Air"
          value={air}
          choices={[
            ...AIRS,
            ...(air === OTHER_AIR ? [{ value: OTHER_AIR, name: "as typed" } as const] : []),
          ]}
          onCommit={(chosen) => {
            if (chosen !== OTHER_AIR) onChange({ air_mps: Number(chosen) });
          }}
        />
        <NumberIn
          label="Air speed"
          unit="m/s"
          value={value.air_mps}
          {...limits.Air.air_mps}
          onCommit={(air_mps) => onChange({ air_mps })}
        />
        <PercentIn
          label="Charge at start"
          value={value.charge_start}
          min={1}
          onCommit={(charge_start) => onChange({ charge_start })}
        />
        <TextIn
          label="Firmware"
          value={value.firmware}
          check={(text) => (text.length > 40 ? "Forty characters at most." : null)}
          onCommit={(firmware) => onChange({ firmware: firmware.trim() })}
        />
      </div>
      <div className="row checks">
        <CheckIn
          label="plugged in while it records"
          value={value.plugged || fed}
          onCommit={(plugged) => onChange({ plugged: plugged || fed })}
        />
        {mode?.features.map((feature) => (
          <CheckIn
            key={feature}
            label={`${feature} on`}
            value={value.features.includes(feature)}
            onCommit={(on) => toggle(feature, on)}
          />
        ))}
      </div>
    </>
  );
}

interface OutcomeProps {
  run: BenchRun;
  onChange: (changed: Partial<BenchRun>) => void;
}

/** How long it recorded, why it stopped, and what else was noted. */
export function OutcomeFields({ run, onChange }: OutcomeProps) {
  return (
    <div className="row fields">
      <NumberIn
        label="Recorded"
        unit="min"
        value={run.minutes}
        {...limits.BenchRun.minutes}
        onCommit={(minutes) => onChange({ minutes })}
      />
      <ChoiceIn
        label="It ended"
        value={run.end}
        choices={END_CHOICES}
        onCommit={(end) => onChange({ end })}
      />
      <NumberIn
        label="Warned of heat at"
        unit="min"
        value={run.warned_min}
        {...limits.BenchRun.warned_min}
        onCommit={(warned_min) => onChange({ warned_min })}
        onClear={() => onChange({ warned_min: null })}
      />
      <NumberIn
        label="Charge at end"
        unit="%"
        value={run.charge_end == null ? null : Math.round(run.charge_end * 100)}
        min={0}
        max={100}
        onCommit={(percent) => onChange({ charge_end: percent / 100 })}
        onClear={() => onChange({ charge_end: null })}
      />
      <NumberIn
        label="Written"
        unit="GB"
        value={run.bytes == null ? null : Math.round(run.bytes / 1e7) / 100}
        min={0}
        max={10_000}
        onCommit={(gb) => onChange({ bytes: Math.round(gb * 1e9) })}
        onClear={() => onChange({ bytes: null })}
      />
      <NumberIn
        label="Meter, mean"
        unit="W"
        value={run.mean_w}
        {...limits.BenchRun.mean_w}
        onCommit={(mean_w) => onChange({ mean_w })}
        onClear={() => onChange({ mean_w: null })}
      />
      {run.mean_w == null ? null : (
        <ChoiceIn
          label="The meter sat"
          value={run.metered}
          choices={[
            { value: "battery", name: "at the battery" },
            { value: "port", name: "at the port" },
          ]}
          onCommit={(metered) => onChange({ metered })}
        />
      )}
      {run.plugged ? (
        <NumberIn
          label="Charging paused"
          unit="min"
          value={run.charge_paused_min}
          {...limits.BenchRun.charge_paused_min}
          onCommit={(charge_paused_min) => onChange({ charge_paused_min })}
        />
      ) : null}
      <TextIn
        label="Date and time"
        value={(run.at ?? "").replace("T", " ").slice(0, 16)}
        placeholder="2026-05-09 14:05"
        check={(text) => (dateOf(text) === undefined ? "Write it like 2026-05-09 14:05." : null)}
        onCommit={(text) => onChange({ at: dateOf(text) ?? null })}
      />
    </div>
  );
}

/** A local time, null when nothing is typed, undefined when it is none. */
function dateOf(text: string): string | null | undefined {
  const trimmed = text.trim();
  if (trimmed === "") return null;
  const found = /^(\d{4}-\d{2}-\d{2})(?:[ T](\d{2}:\d{2}))?$/.exec(trimmed);
  if (found === null) return undefined;
  const local = `${found[1] ?? ""}T${found[2] ?? "12:00"}:00`;
  const parsed = new Date(`${local}Z`);
  const same = !Number.isNaN(parsed.getTime()) && parsed.toISOString().startsWith(local);
  return same ? local : undefined;
}
