import * as limits from "../../domain/limits";
import {
  freshCharger,
  freshDrive,
  freshLoad,
  freshPocket,
  freshSource,
  SOURCE_KINDS,
  WARMTH,
  withoutNames,
} from "../../domain/powerEdits";
import type { Drive, Kit, Pocket, Source } from "../../domain/types";
import { CheckIn, ChoiceIn, NameIn, NumberIn } from "../../ui/fields";
import { SourceFields } from "./SourceFields";
import { UnitList } from "./UnitList";
import { CarriedIn } from "./CarriedIn";

interface Props {
  kit: Kit;
  editKit: (change: (old: Kit) => Kit) => void;
}

const KINDS = Object.keys(SOURCE_KINDS) as Source["kind"][];
const DRIVES: Record<Drive["kind"], string> = {
  phone: "phone",
  drive: "drive",
  computer: "computer",
};

/** Pockets, chargers, sources, other loads and drives: what keeps cameras and footage going. */
export function Power({ kit, editKit }: Props) {
  return (
    <>
      <UnitList
        title="Pockets"
        what="pocket"
        hint="A warm pocket keeps a spare's charge within reach in the cold."
        units={kit.pockets}
        most={20}
        put={(pockets) => editKit((old) => withoutNames({ ...old, pockets }))}
        add={[{ name: "Add a pocket", fresh: () => freshPocket(kit) }]}
        fields={(pocket, _, change) => (
          <>
            <NameIn label="Pocket" value={pocket.name} onCommit={(name) => change({ name })} />
            <ChoiceIn
              label="Warmth"
              value={pocket.warmth}
              choices={Object.entries(WARMTH).map(([value, name]) => ({
                value: value as Pocket["warmth"],
                name,
              }))}
              onCommit={(warmth) => change({ warmth })}
              width={196}
            />
          </>
        )}
      />
      <Chargers kit={kit} editKit={editKit} />
      <UnitList
        title="Sources of power"
        what="source"
        units={kit.sources}
        most={12}
        put={(sources) => editKit((old) => withoutNames({ ...old, sources }))}
        add={KINDS.map((kind) => ({
          name: `Add a ${SOURCE_KINDS[kind]}`,
          fresh: () => freshSource(kit, kind),
        }))}
        fields={(source, place, change) => (
          <SourceFields
            source={source}
            pockets={kit.pockets}
            path={`kit.sources[${String(place)}]`}
            put={(next) => change(next)}
          />
        )}
      />
      <UnitList
        title="Other loads"
        what="load"
        hint="They take their share of a bank before any camera."
        units={kit.loads}
        most={12}
        put={(loads) => editKit((old) => ({ ...old, loads }))}
        add={[{ name: "Add a load", fresh: () => freshLoad(kit) }]}
        fields={(load, _, change) => (
          <>
            <NameIn label="Load" value={load.name} onCommit={(name) => change({ name })} />
            <NumberIn
              label="A day"
              unit="W h"
              value={load.wh_per_day}
              {...limits.OtherLoad.wh_per_day}
              onCommit={(wh_per_day) => change({ wh_per_day })}
              width={104}
            />
          </>
        )}
      />
      <UnitList
        title="Phones and drives for copies"
        what="drive"
        units={kit.drives}
        most={12}
        put={(drives) => editKit((old) => ({ ...old, drives }))}
        add={[{ name: "Add a drive", fresh: () => freshDrive(kit) }]}
        fields={(drive, _, change) => (
          <>
            <NameIn label="Drive" value={drive.name} onCommit={(name) => change({ name })} />
            <ChoiceIn
              label="Kind"
              value={drive.kind}
              choices={Object.entries(DRIVES).map(([value, name]) => ({
                value: value as Drive["kind"],
                name,
              }))}
              onCommit={(kind) => change({ kind })}
              width={110}
            />
            <NumberIn
              label="Free"
              unit="GB"
              value={drive.free_gb}
              {...limits.Drive.free_gb}
              onCommit={(free_gb) => change({ free_gb })}
              width={96}
            />
            <NumberIn
              label="Cable"
              unit="MB/s"
              value={drive.link_mb_s}
              {...limits.Drive.link_mb_s}
              onCommit={(link_mb_s) => change({ link_mb_s })}
              width={104}
            />
            <NumberIn
              label="Writes"
              unit="MB/s"
              value={drive.write_mb_s}
              {...limits.Drive.write_mb_s}
              onCommit={(write_mb_s) => change({ write_mb_s })}
              width={108}
            />
            <CarriedIn
              mass_g={drive.mass_g}
              onMass={(mass_g) => change({ mass_g })}
              cost={drive.cost}
              onCost={(cost) => change({ cost })}
            />
          </>
        )}
      />
    </>
  );
}

function Chargers({ kit, editKit }: Props) {
  if (kit.families.length === 0) return null;
  return (
    <UnitList
      title="Chargers"
      what="charger"
      units={kit.chargers}
      most={12}
      put={(chargers) => editKit((old) => ({ ...old, chargers }))}
      add={[{ name: "Add a charger", fresh: () => freshCharger(kit) }]}
      fields={(charger, _, change) => (
        <>
          <NameIn
            label="Charger"
            value={charger.name}
            onCommit={(name) => change({ name })}
            width={120}
          />
          <NumberIn
            label="Bays"
            unit="in all"
            value={charger.bays}
            {...limits.Charger.bays}
            whole
            onCommit={(bays) => change({ bays })}
            width={92}
          />
          <NumberIn
            label="Takes"
            unit="W"
            value={charger.in_w}
            {...limits.Charger.in_w}
            onCommit={(in_w) => change({ in_w })}
            width={88}
          />
          <CarriedIn
            mass_g={charger.mass_g}
            onMass={(mass_g) => change({ mass_g })}
            cost={charger.cost}
            onCost={(cost) => change({ cost })}
          />
          <NumberIn
            label="One bay"
            unit="W"
            value={charger.bay_w}
            {...limits.Charger.bay_w}
            assumed="no less"
            onCommit={(bay_w) => change({ bay_w })}
            onClear={() => change({ bay_w: null })}
            width={130}
          />
          {kit.families.map((family) => (
            <CheckIn
              key={family.id}
              label={`takes ${family.name}`}
              value={charger.families.includes(family.id)}
              onCommit={(on) => {
                const families = kit.families
                  .map((one) => one.id)
                  .filter((id) => (id === family.id ? on : charger.families.includes(id)));
                if (families.length > 0) change({ families });
              }}
            />
          ))}
          <CheckIn
            label="all bays at once"
            value={charger.together}
            onCommit={(together) => change({ together })}
          />
        </>
      )}
    />
  );
}
