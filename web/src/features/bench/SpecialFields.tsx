import * as limits from "../../domain/limits";
import { readingsOf, readingsText } from "../../domain/bench";
import type { BenchRun } from "../../domain/types";
import { CheckIn, ChoiceIn, NumberIn, TextIn } from "../../ui/fields";

interface Props {
  run: BenchRun;
  onChange: (changed: Partial<BenchRun>) => void;
}

const LIKE = "Minutes and per cent, like 20:80 40:55.";

/** What a run on a module, of charging, with a pause or from a warm pocket has besides. */
export function SpecialFields({ run, onChange }: Props) {
  const special =
    run.store_wh != null || run.charging || run.paused_from_min != null || run.cell_start_c != null;
  const readings = (field: "store_read" | "charge_read", label: string) => (
    <TextIn
      label={label}
      value={readingsText(run[field])}
      placeholder="20:80 40:55"
      check={(text) => (readingsOf(text) === null ? LIKE : null)}
      onCommit={(text) => onChange({ [field]: readingsOf(text) ?? [] })}
    />
  );
  return (
    <details open={special}>
      <summary>On a module or bank, charging, or in the cold</summary>
      <div className="row fields">
        <NumberIn
          label="It ran on one that holds"
          unit="W h"
          value={run.store_wh}
          {...limits.BenchRun.store_wh}
          onCommit={(store_wh) => onChange({ store_wh })}
          onClear={() =>
            onChange({
              store_wh: null,
              store_read: [],
              ...(run.end === "both_empty" ? { end: "empty" } : {}),
            })
          }
        />
        {run.store_wh == null ? null : (
          <>
            <ChoiceIn
              label="That is"
              value={run.store_kind}
              choices={[
                { value: "module", name: "a module" },
                { value: "bank", name: "a power bank" },
              ]}
              onCommit={(store_kind) => onChange({ store_kind })}
            />
            {readings("store_read", "Its per cent at minutes")}
          </>
        )}
        <NumberIn
          label="Charging paused at"
          unit="min"
          value={run.paused_from_min}
          {...limits.BenchRun.paused_from_min}
          onCommit={(paused_from_min) => onChange({ paused_from_min })}
          onClear={() => onChange({ paused_from_min: null, resumed_min: null })}
        />
        {run.paused_from_min == null ? null : (
          <NumberIn
            label="And went on at"
            unit="min"
            value={run.resumed_min}
            {...limits.BenchRun.resumed_min}
            onCommit={(resumed_min) => onChange({ resumed_min })}
            onClear={() => onChange({ resumed_min: null })}
          />
        )}
        <NumberIn
          label="Battery at the start"
          unit="°C"
          value={run.cell_start_c}
          {...limits.BenchRun.cell_start_c}
          assumed="as the room"
          onCommit={(cell_start_c) => onChange({ cell_start_c })}
          onClear={() => onChange({ cell_start_c: null })}
        />
        <CheckIn
          label="it was off and only charged"
          value={run.charging}
          onCommit={(charging) =>
            onChange(charging ? { charging, end: "full" } : { charging, end: "stopped" })
          }
        />
        {run.charging ? (
          <>
            <NumberIn
              label="Its port gives"
              unit="W"
              value={run.port_w}
              {...limits.BenchRun.port_w}
              assumed="enough"
              onCommit={(port_w) => onChange({ port_w })}
              onClear={() => onChange({ port_w: null })}
            />
            {readings("charge_read", "Per cent at minutes")}
          </>
        ) : null}
      </div>
      <p className="hint">
        A run that died in the cold teaches most with the per cent that it showed then, as its
        charge at the end.
      </p>
    </details>
  );
}
