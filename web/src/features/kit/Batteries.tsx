import * as limits from "../../domain/limits";
import { Button } from "@mui/material";
import {
  familyIsFree,
  freshBattery,
  freshFamily,
  withCopiedBattery,
  withoutUnit,
  withUnit,
} from "../../domain/kitEdits";
import type { Battery, BatteryFamily, Kit } from "../../domain/types";
import { ChoiceIn, NameIn, NumberIn, PercentIn } from "../../ui/fields";
import { CostIn } from "./CarriedIn";

interface Props {
  kit: Kit;
  editKit: (change: (old: Kit) => Kit) => void;
}

/** Batteries as labelled units, by family. */
export function Batteries({ kit, editKit }: Props) {
  const putFamily = (next: BatteryFamily) =>
    editKit((old) => ({ ...old, families: withUnit(old.families, next) }));
  return (
    <section aria-label="Batteries">
      <h2>Batteries</h2>
      {kit.families.map((family) => (
        <FamilyBlock
          key={family.id}
          kit={kit}
          family={family}
          putFamily={putFamily}
          editKit={editKit}
        />
      ))}
      <Button
        disabled={kit.families.length >= 20}
        onClick={() =>
          editKit((old) => ({ ...old, families: [...old.families, freshFamily(old)] }))
        }
      >
        Add a battery family
      </Button>
    </section>
  );
}

function FamilyBlock({
  kit,
  family,
  putFamily,
  editKit,
}: Props & { family: BatteryFamily; putFamily: (next: BatteryFamily) => void }) {
  const mine = kit.batteries.filter((one) => one.family === family.id);
  const takers = kit.cameras
    .filter((one) => one.battery_family === family.id)
    .map((one) => one.name);
  const put = (next: Battery) =>
    editKit((old) => ({ ...old, batteries: withUnit(old.batteries, next) }));
  const wh = (family.mah * family.nominal_v) / 1000;
  return (
    <div className="part" role="group" aria-label={`Battery family ${family.name}`}>
      <div className="row fields">
        <NameIn
          label="Family"
          value={family.name}
          onCommit={(name) => putFamily({ ...family, name })}
          width={84}
        />
        <NumberIn
          label="Capacity"
          unit="mAh"
          value={family.mah}
          {...limits.BatteryFamily.mah}
          onCommit={(mah) => putFamily({ ...family, mah })}
          width={120}
        />
        <NumberIn
          label="Nominal"
          unit="V"
          value={family.nominal_v}
          {...limits.BatteryFamily.nominal_v}
          onCommit={(nominal_v) => putFamily({ ...family, nominal_v })}
          width={90}
        />
        <NumberIn
          label="Mass"
          unit="g"
          value={family.mass_g}
          {...limits.BatteryFamily.mass_g}
          onCommit={(mass_g) => putFamily({ ...family, mass_g })}
          width={84}
        />
        <CostIn cost={family.cost} onCost={(cost) => putFamily({ ...family, cost })} />
      </div>
      <p className="hint">
        {wh.toFixed(1)} W h each;{" "}
        {takers.length > 0 ? `in ${takers.join(", ")}` : "no camera takes it"}; {mine.length}{" "}
        carried, {Math.round(mine.length * family.mass_g)} g.
      </p>
      <ul className="unit-rows">
        {mine.map((battery) => {
          const path = `kit.batteries[${String(kit.batteries.indexOf(battery))}]`;
          return (
            <li key={battery.id} className="row">
              <NameIn
                label="Label"
                path={path}
                value={battery.name}
                onCommit={(name) => put({ ...battery, name })}
                width={84}
              />
              <PercentIn
                label="Health"
                value={battery.health}
                min={1}
                max={120}
                onCommit={(health) => put({ ...battery, health })}
                width={92}
              />
              <PercentIn
                label="Charge"
                value={battery.charge}
                onCommit={(charge) => put({ ...battery, charge })}
                width={92}
              />
              {kit.pockets.length > 0 ? (
                <ChoiceIn
                  label="Lies in"
                  path={`${path}.pocket`}
                  value={battery.pocket ?? ""}
                  choices={[
                    { value: "", name: "the bag" },
                    ...kit.pockets.map((one) => ({ value: one.id, name: one.name })),
                  ]}
                  onCommit={(value) => put({ ...battery, pocket: value === "" ? null : value })}
                  width={130}
                />
              ) : null}
              <button
                type="button"
                className="plain link"
                disabled={kit.batteries.length >= 60}
                onClick={() => editKit((old) => withCopiedBattery(old, battery))}
                aria-label={`Copy battery ${battery.name}`}
              >
                Copy
              </button>
              <button
                type="button"
                className="plain link"
                onClick={() =>
                  editKit((old) => ({ ...old, batteries: withoutUnit(old.batteries, battery.id) }))
                }
                aria-label={`Delete battery ${battery.name}`}
              >
                Delete
              </button>
            </li>
          );
        })}
      </ul>
      <div className="row">
        <Button
          disabled={kit.batteries.length >= 60}
          onClick={() =>
            editKit((old) => ({
              ...old,
              batteries: [...old.batteries, freshBattery(old, family)],
            }))
          }
        >
          Add a battery {family.name}
        </Button>
        {familyIsFree(kit, family.id) ? (
          <button
            type="button"
            className="plain link"
            onClick={() =>
              editKit((old) => ({ ...old, families: withoutUnit(old.families, family.id) }))
            }
          >
            Delete family {family.name}
          </button>
        ) : null}
      </div>
    </div>
  );
}
