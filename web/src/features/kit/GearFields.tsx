import * as limits from "../../domain/limits";
import { GEAR_KINDS } from "../../domain/powerEdits";
import type { Gear } from "../../domain/types";
import { ChoiceIn, NameIn, NumberIn, PercentIn } from "../../ui/fields";
import { CarriedIn } from "./CarriedIn";
import type { UnitProps } from "./UnitFields";

/** Something with a battery that is no camera: what it holds, draws, and serves. */
export function GearFields({ kit, unit, path, change }: UnitProps<Gear>) {
  const hours = unit.wh / unit.use_w;
  return (
    <>
      <NameIn label="Name" path={path} value={unit.name} onCommit={(name) => change({ name })} />
      <ChoiceIn
        label="Kind"
        value={unit.kind}
        choices={Object.entries(GEAR_KINDS).map(([value, name]) => ({
          value: value as Gear["kind"],
          name,
        }))}
        onCommit={(kind) => change({ kind })}
      />
      <NumberIn
        label="Holds"
        unit="W h"
        value={unit.wh}
        {...limits.Gear.wh}
        onCommit={(wh) => change({ wh })}
      />
      <NumberIn
        label="Draws in use"
        unit="W"
        value={unit.use_w}
        {...limits.Gear.use_w}
        onCommit={(use_w) => change({ use_w })}
      />
      <NumberIn
        label="Or lasts"
        unit="min"
        value={Math.round(hours * 60)}
        min={1}
        max={10_000}
        onCommit={(minutes) => change({ use_w: unit.wh / (minutes / 60) })}
      />
      <NumberIn
        label="Charges at"
        unit="W"
        value={unit.in_w}
        {...limits.Gear.in_w}
        onCommit={(in_w) => change({ in_w })}
      />
      <PercentIn label="Charge" value={unit.charge} onCommit={(charge) => change({ charge })} />
      <ChoiceIn
        label="Serves"
        path={`${path}.serves`}
        value={unit.serves ?? ""}
        choices={[
          { value: "", name: "legs that the plan names" },
          ...kit.cameras.map((one) => ({ value: one.id, name: one.name })),
        ]}
        onCommit={(value) => change({ serves: value === "" ? null : value })}
      />
      <ChoiceIn
        label="Is in"
        path={`${path}.pocket`}
        value={unit.pocket ?? ""}
        choices={[
          { value: "", name: "the open air" },
          ...kit.pockets.map((one) => ({ value: one.id, name: one.name })),
        ]}
        onCommit={(value) => change({ pocket: value === "" ? null : value })}
      />
      <CarriedIn
        mass_g={unit.mass_g}
        onMass={(mass_g) => change({ mass_g })}
        cost={unit.cost}
        onCost={(cost) => change({ cost })}
      />
      <p className="hint">
        It is used while its camera is asked, and on legs named on the board under “For the whole
        trip”. It charges at the same ports as everything else.
      </p>
    </>
  );
}
