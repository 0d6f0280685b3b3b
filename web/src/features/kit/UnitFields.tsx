import { CLASS_CHOICES } from "../../domain/cardClasses";
import * as assume from "../../domain/assumed";
import { useTellGone } from "../../app/gone";
import * as limits from "../../domain/limits";
import { familyIsFree, withCopiedBattery, withCopiedCard } from "../../domain/kitEdits";
import { WARMTH } from "../../domain/powerEdits";
import type {
  Battery,
  BatteryFamily,
  Card,
  Charger,
  Drive,
  Kit,
  OtherLoad,
  Pocket,
} from "../../domain/types";
import { gramsText } from "../../domain/units";
import { CheckIn, ChoiceIn, NameIn, NumberIn, PercentIn } from "../../ui/fields";
import { CarriedIn, CostIn } from "./CarriedIn";
import { FamilyCurves } from "./FamilyCurves";

/** A unit of the kit in the sheet beside it. */
export interface UnitProps<Unit> {
  kit: Kit;
  unit: Unit;
  path: string;
  change: (some: Partial<Unit>) => void;
  editKit: (change: (old: Kit) => Kit) => void;
}

const DRIVES: Record<Drive["kind"], string> = {
  phone: "phone",
  drive: "drive",
  computer: "computer",
};

export function BatteryFields({ kit, unit, path, change, editKit }: UnitProps<Battery>) {
  return (
    <>
      <NameIn label="Label" path={path} value={unit.name} onCommit={(name) => change({ name })} />
      <PercentIn label="Charge" value={unit.charge} onCommit={(charge) => change({ charge })} />
      <PercentIn
        label="Health"
        value={unit.health}
        min={1}
        max={120}
        onCommit={(health) => change({ health })}
      />
      <ChoiceIn
        label="Lies in"
        path={`${path}.pocket`}
        value={unit.pocket ?? ""}
        choices={[
          { value: "", name: "the bag" },
          ...kit.pockets.map((one) => ({ value: one.id, name: one.name })),
        ]}
        onCommit={(value) => change({ pocket: value === "" ? null : value })}
      />
      <button
        type="button"
        className="plain link"
        disabled={kit.batteries.length >= 60}
        onClick={() => editKit((old) => withCopiedBattery(old, unit))}
        aria-label={`Copy battery ${unit.name}`}
      >
        Copy
      </button>
    </>
  );
}

export function FamilyFields({ kit, unit, change, editKit }: UnitProps<BatteryFamily>) {
  const tellGone = useTellGone();
  const takers = kit.cameras.filter((one) => one.battery_family === unit.id).map((one) => one.name);
  const mine = kit.batteries.filter((one) => one.family === unit.id).length;
  return (
    <div role="group" aria-label={`Battery family ${unit.name}`} className="beside-fields">
      <NameIn label="Family" value={unit.name} onCommit={(name) => change({ name })} />
      <NumberIn
        label="Capacity"
        unit="mAh"
        value={unit.mah}
        {...limits.BatteryFamily.mah}
        onCommit={(mah) => change({ mah })}
      />
      <NumberIn
        label="Nominal"
        unit="V"
        value={unit.nominal_v}
        {...limits.BatteryFamily.nominal_v}
        onCommit={(nominal_v) => change({ nominal_v })}
      />
      <ChargingIn unit={unit} change={change} />
      <FamilyCurves kit={kit} unit={unit} change={change} />
      <NumberIn
        label="Mass"
        unit="g"
        value={unit.mass_g}
        {...limits.BatteryFamily.mass_g}
        onCommit={(mass_g) => change({ mass_g })}
      />
      <CostIn cost={unit.cost} onCost={(cost) => change({ cost })} />
      <p className="hint">
        {((unit.mah * unit.nominal_v) / 1000).toFixed(1)} W h each;{" "}
        {takers.length > 0 ? `in ${takers.join(", ")}` : "no camera takes it"}; {mine} carried,{" "}
        {gramsText(mine * unit.mass_g)}.
      </p>
      {familyIsFree(kit, unit.id) ? (
        <button
          type="button"
          className="plain link"
          onClick={() => {
            editKit((old) => ({
              ...old,
              families: old.families.filter((one) => one.id !== unit.id),
            }));
            tellGone(`Family ${unit.name}`);
          }}
        >
          Delete family {unit.name}
        </button>
      ) : null}
    </div>
  );
}

export function CardFields({ kit, unit, path, change, editKit }: UnitProps<Card>) {
  return (
    <>
      <NameIn label="Label" path={path} value={unit.name} onCommit={(name) => change({ name })} />
      <NumberIn
        label="Size"
        unit="GB"
        value={unit.gb}
        {...limits.Card.gb}
        whole
        onCommit={(gb) => change({ gb })}
      />
      <ChoiceIn
        label="Class"
        value={unit.speed_class}
        choices={CLASS_CHOICES}
        onCommit={(speed_class) => change({ speed_class })}
      />
      <NumberIn
        label="Used"
        unit="GB"
        value={Math.round(unit.used_bytes / 1e8) / 10}
        min={0}
        max={unit.gb}
        onCommit={(gb) => change({ used_bytes: Math.round(gb * 1e9) })}
      />
      <CostIn cost={unit.cost} onCost={(cost) => change({ cost })} />
      <button
        type="button"
        className="plain link"
        disabled={kit.cards.length >= 60}
        onClick={() => editKit((old) => withCopiedCard(old, unit))}
        aria-label={`Copy card ${unit.name}`}
      >
        Copy
      </button>
    </>
  );
}

export function PocketFields({ unit, change }: UnitProps<Pocket>) {
  return (
    <>
      <NameIn label="Pocket" value={unit.name} onCommit={(name) => change({ name })} />
      <ChoiceIn
        label="Warmth"
        value={unit.warmth}
        choices={Object.entries(WARMTH).map(([value, name]) => ({
          value: value as Pocket["warmth"],
          name,
        }))}
        onCommit={(warmth) => change({ warmth })}
      />
      <NumberIn
        label="Kept at"
        unit="°C"
        value={unit.kept_c}
        {...limits.Pocket.kept_c}
        assumed="by warmth"
        onCommit={(kept_c) => change({ kept_c })}
        onClear={() => change({ kept_c: null })}
      />
      <p className="hint">
        A hand warmer keeps a pocket at a temperature of its own. Do not lay cells against it; heed
        its maker’s and theirs.
      </p>
      <p className="hint">A warm pocket keeps a spare’s charge within reach in the cold.</p>
    </>
  );
}

export function LoadFields({ unit, change }: UnitProps<OtherLoad>) {
  return (
    <>
      <NameIn label="Load" value={unit.name} onCommit={(name) => change({ name })} />
      <NumberIn
        label="A day"
        unit="W h"
        value={unit.wh_per_day}
        {...limits.OtherLoad.wh_per_day}
        onCommit={(wh_per_day) => change({ wh_per_day })}
      />
      <p className="hint">It takes its share of a bank before any camera.</p>
    </>
  );
}

export function DriveFields({ unit, change }: UnitProps<Drive>) {
  return (
    <>
      <NameIn label="Drive" value={unit.name} onCommit={(name) => change({ name })} />
      <ChoiceIn
        label="Kind"
        value={unit.kind}
        choices={Object.entries(DRIVES).map(([value, name]) => ({
          value: value as Drive["kind"],
          name,
        }))}
        onCommit={(kind) => change({ kind })}
      />
      <NumberIn
        label="Free"
        unit="GB"
        value={unit.free_gb}
        {...limits.Drive.free_gb}
        onCommit={(free_gb) => change({ free_gb })}
      />
      <NumberIn
        label="Cable"
        unit="MB/s"
        value={unit.link_mb_s}
        {...limits.Drive.link_mb_s}
        onCommit={(link_mb_s) => change({ link_mb_s })}
      />
      <NumberIn
        label="Radio"
        unit="MB/s"
        value={unit.radio_mb_s}
        {...limits.Drive.radio_mb_s}
        assumed={String(assume.radio_mb_s)}
        onCommit={(radio_mb_s) => change({ radio_mb_s })}
        onClear={() => change({ radio_mb_s: null })}
      />
      <NumberIn
        label="Writes"
        unit="MB/s"
        value={unit.write_mb_s}
        {...limits.Drive.write_mb_s}
        onCommit={(write_mb_s) => change({ write_mb_s })}
      />
      <CarriedIn
        mass_g={unit.mass_g}
        onMass={(mass_g) => change({ mass_g })}
        cost={unit.cost}
        onCost={(cost) => change({ cost })}
      />
    </>
  );
}

export function ChargerFields({ kit, unit, change }: UnitProps<Charger>) {
  return (
    <>
      <NameIn label="Charger" value={unit.name} onCommit={(name) => change({ name })} />
      <NumberIn
        label="Bays"
        unit="in all"
        value={unit.bays}
        {...limits.Charger.bays}
        whole
        onCommit={(bays) => change({ bays })}
      />
      <NumberIn
        label="Takes"
        unit="W"
        value={unit.in_w}
        {...limits.Charger.in_w}
        onCommit={(in_w) => change({ in_w })}
      />
      <NumberIn
        label="One bay"
        unit="W"
        value={unit.bay_w}
        {...limits.Charger.bay_w}
        assumed="no less"
        onCommit={(bay_w) => change({ bay_w })}
        onClear={() => change({ bay_w: null })}
      />
      <CarriedIn
        mass_g={unit.mass_g}
        onMass={(mass_g) => change({ mass_g })}
        cost={unit.cost}
        onCost={(cost) => change({ cost })}
      />
      {kit.families.map((family) => (
        <CheckIn
          key={family.id}
          label={`takes ${family.name}`}
          value={unit.families.includes(family.id)}
          onCommit={(on) => {
            const families = kit.families
              .map((one) => one.id)
              .filter((id) => (id === family.id ? on : unit.families.includes(id)));
            if (families.length > 0) change({ families });
          }}
        />
      ))}
      <CheckIn
        label="all bays at once"
        value={unit.together}
        onCommit={(together) => change({ together })}
      />
    </>
  );
}

interface ChargingProps {
  unit: BatteryFamily;
  change: (part: Partial<BatteryFamily>) => void;
}

/** Hours from empty to 80 % at a rate of 1 per hour, with a taper from a charge on. */
const hoursTo80 = (taperFrom: number) =>
  taperFrom >= 0.8 ? 0.8 : taperFrom + (1 - taperFrom) * Math.log((1 - taperFrom) / 0.2);

/** How it charges, as people know it: minutes from empty to 80 %, or watts, and until when. */
function ChargingIn({ unit, change }: ChargingProps) {
  const wh = (unit.mah * unit.nominal_v) / 1000;
  const rate = unit.rate_per_h ?? null;
  const most = limits.BatteryFamily.rate_per_h.max;
  const tidy = (value: number) => Math.round(value * 10) / 10;
  const hours = hoursTo80(unit.taper_from ?? assume.kink);
  const across = (value: number) => (hours * 60) / value; // minutes of a rate, and back
  return (
    <>
      <NumberIn
        label="Empty to 80 % in"
        unit="min"
        value={rate === null ? null : tidy(across(rate))}
        min={across(most)}
        max={1440}
        assumed={String(tidy(across(assume.charge_rate_per_h)))}
        onCommit={(minutes) => change({ rate_per_h: across(minutes) })}
        onClear={() => change({ rate_per_h: null })}
      />
      <NumberIn
        label="Or takes"
        unit="W"
        value={rate === null ? null : tidy(rate * wh)}
        min={0.1}
        max={tidy(most * wh)}
        assumed={String(tidy(assume.charge_rate_per_h * wh))}
        onCommit={(watts) => change({ rate_per_h: watts / wh })}
        onClear={() => change({ rate_per_h: null })}
      />
      <NumberIn
        label="Less and less from"
        unit="%"
        value={unit.taper_from == null ? null : tidy(unit.taper_from * 100)}
        min={(limits.BatteryFamily.taper_from.min ?? 0.5) * 100}
        max={(limits.BatteryFamily.taper_from.max ?? 0.95) * 100}
        assumed={String(tidy(assume.kink * 100))}
        onCommit={(percent) => change({ taper_from: percent / 100 })}
        onClear={() => change({ taper_from: null })}
      />
    </>
  );
}
