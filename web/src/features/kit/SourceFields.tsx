import * as limits from "../../domain/limits";
import { portsOf, SOURCE_KINDS } from "../../domain/powerEdits";
import type { Bank, Camera, Module, Pocket, Source } from "../../domain/types";
import { CheckIn, ChoiceIn, NameIn, NumberIn, PercentIn, TextIn } from "../../ui/fields";
import { CarriedIn } from "./CarriedIn";

interface Props {
  source: Source;
  pockets: readonly Pocket[];
  cameras: readonly Camera[];
  path: string;
  put: (next: Source) => void;
}

/** A source's name, ports, and what only its kind has. */
export function SourceFields({ source, pockets, cameras, path, put }: Props) {
  return (
    <>
      <NameIn
        label={SOURCE_KINDS[source.kind]}
        path={path}
        value={source.name}
        onCommit={(name) => put({ ...source, name })}
      />
      {source.kind === "module" ? (
        <ModuleFields module={source} cameras={cameras} path={path} put={put} />
      ) : (
        <TextIn
          label="Ports, W"
          value={source.ports.join(", ")}
          check={(text) => (portsOf(text) === null ? "Like 18, 10: watts of each port." : null)}
          onCommit={(text) => {
            const ports = portsOf(text);
            if (ports !== null) put({ ...source, ports });
          }}
        />
      )}
      <CarriedIn
        mass_g={source.mass_g}
        onMass={(mass_g) => put({ ...source, mass_g })}
        cost={source.cost}
        onCost={(cost) => put({ ...source, cost })}
      />
      {source.kind === "dynamo" || source.kind === "panel" || source.kind === "module" ? null : (
        <NumberIn
          label="In all"
          unit="W"
          value={source.total_w}
          {...limits.Bank.total_w}
          assumed="their sum"
          onCommit={(total_w) => put({ ...source, total_w })}
          onClear={() => put({ ...source, total_w: null })}
        />
      )}
      {source.kind === "bank" ? <BankFields bank={source} pockets={pockets} put={put} /> : null}
      {source.kind === "dynamo" || source.kind === "panel" ? (
        <NumberIn
          label="Rated"
          unit="W"
          value={source.rated_w}
          {...limits.Dynamo.rated_w}
          onCommit={(rated_w) => put({ ...source, rated_w })}
        />
      ) : null}
      {source.kind === "panel" ? (
        <>
          <ChoiceIn
            label="Laid out"
            value={source.out_at}
            choices={[
              { value: "always", name: "always" },
              { value: "legs", name: "on legs" },
              { value: "stops", name: "at stops" },
            ]}
            onCommit={(out_at) => put({ ...source, out_at })}
          />
          {source.out_at === "stops" ? null : (
            <ChoiceIn
              label="On legs it is"
              value={source.on_legs}
              choices={[
                { value: "carried", name: "carried on a pack" },
                { value: "laid", name: "laid out to the sun" },
              ]}
              onCommit={(on_legs) => put({ ...source, on_legs })}
            />
          )}
          <NumberIn
            label="Tilt"
            unit="°"
            value={source.tilt_deg}
            {...limits.FromPanel.tilt_deg}
            onCommit={(tilt_deg) => put({ ...source, tilt_deg })}
          />
          <NumberIn
            label="Looks to"
            unit="° from north"
            value={source.azimuth_deg}
            min={0}
            max={359}
            onCommit={(azimuth_deg) => put({ ...source, azimuth_deg })}
          />
        </>
      ) : null}
    </>
  );
}

interface ModuleProps {
  module: Module;
  cameras: readonly Camera[];
  path: string;
  put: (next: Source) => void;
}

/** A store that rides on one camera: known by its label, or by how long that lasts with it. */
function ModuleFields({ module, cameras, path, put }: ModuleProps) {
  return (
    <>
      <ChoiceIn
        label="Rides on"
        path={`${path}.fits`}
        value={module.fits}
        choices={cameras.map((one) => ({ value: one.id, name: one.name }))}
        onCommit={(fits) => put({ ...module, fits })}
      />
      <NumberIn
        label="Capacity"
        unit="mAh"
        value={module.mah}
        {...limits.Module.mah}
        assumed="by what it lasts"
        onCommit={(mah) => put({ ...module, mah, lasts_min: null })}
      />
      <NumberIn
        label="Or it lasts, with it"
        unit="min"
        value={module.lasts_min}
        {...limits.Module.lasts_min}
        assumed="by its capacity"
        onCommit={(lasts_min) => put({ ...module, lasts_min, mah: null })}
        hint="Camera and module both full, in its first mode."
      />
      <NumberIn
        label="Gives at most"
        unit="W"
        value={module.out_w}
        {...limits.Module.out_w}
        onCommit={(out_w) => put({ ...module, out_w })}
      />
      <NumberIn
        label="Takes at most"
        unit="W"
        value={module.in_w}
        {...limits.Module.in_w}
        onCommit={(in_w) => put({ ...module, in_w })}
      />
      <PercentIn
        label="Charge"
        value={module.charge}
        onCommit={(charge) => put({ ...module, charge })}
      />
      <PercentIn
        label="Health"
        value={module.health}
        min={1}
        max={120}
        onCommit={(health) => put({ ...module, health })}
      />
    </>
  );
}

function BankFields({
  bank,
  pockets,
  put,
}: {
  bank: Bank;
  pockets: readonly Pocket[];
  put: (next: Source) => void;
}) {
  return (
    <>
      <NumberIn
        label="Capacity"
        unit="mAh"
        value={bank.mah}
        {...limits.Bank.mah}
        onCommit={(mah) => put({ ...bank, mah })}
      />
      <PercentIn
        label="Charge"
        value={bank.charge}
        onCommit={(charge) => put({ ...bank, charge })}
      />
      <NumberIn
        label="Takes"
        unit="W"
        value={bank.in_w}
        {...limits.Bank.in_w}
        onCommit={(in_w) => put({ ...bank, in_w })}
      />
      <NumberIn
        label="Emergency reserve"
        unit="W h"
        value={bank.reserve_wh}
        {...limits.Bank.reserve_wh}
        onCommit={(reserve_wh) => put({ ...bank, reserve_wh })}
      />
      <ChoiceIn
        label="Lies in"
        value={bank.pocket ?? ""}
        choices={[
          { value: "", name: "the bag" },
          ...pockets.map((one) => ({ value: one.id, name: one.name })),
        ]}
        onCommit={(value) => put({ ...bank, pocket: value === "" ? null : value })}
      />
      <CheckIn
        label="stays on under low load"
        value={bank.stays_on}
        onCommit={(stays_on) => put({ ...bank, stays_on })}
      />
      <span className="hint">
        gives about {((bank.mah * 3.7 * 0.85 * bank.health) / 1000).toFixed(0)} W h
      </span>
    </>
  );
}
