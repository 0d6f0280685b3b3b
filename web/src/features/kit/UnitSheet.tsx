import type { ComponentType } from "react";
import { useTellGone } from "../../app/gone";
import { capital } from "../../domain/gone";
import { withoutNames } from "../../domain/powerEdits";
import type { Kit, Source } from "../../domain/types";
import { Beside } from "./Beside";
import { markOf, type Opened } from "./opened";
import { GearFields } from "./GearFields";
import { SourceFields } from "./SourceFields";
import {
  BatteryFields,
  CardFields,
  ChargerFields,
  DriveFields,
  FamilyFields,
  LoadFields,
  PocketFields,
  type UnitProps,
} from "./UnitFields";

type List =
  | "batteries"
  | "families"
  | "cards"
  | "pockets"
  | "chargers"
  | "sources"
  | "loads"
  | "gear"
  | "drives";

interface Props {
  kit: Kit;
  opened: Opened;
  editKit: (change: (old: Kit) => Kit) => void;
  onClose: () => void;
}

/** The fields of one unit, beside its drawing. */
export function UnitSheet(props: Props) {
  switch (props.opened.kind) {
    case "battery":
      return <Sheet {...props} list="batteries" Fields={BatteryFields} />;
    case "family":
      return <Sheet {...props} list="families" Fields={FamilyFields} />;
    case "card":
      return <Sheet {...props} list="cards" Fields={CardFields} />;
    case "pocket":
      return <Sheet {...props} list="pockets" Fields={PocketFields} />;
    case "charger":
      return <Sheet {...props} list="chargers" Fields={ChargerFields} />;
    case "source":
      return <Sheet {...props} list="sources" Fields={SourceOf} />;
    case "load":
      return <Sheet {...props} list="loads" Fields={LoadFields} />;
    case "gear":
      return <Sheet {...props} list="gear" Fields={GearFields} />;
    case "drive":
      return <Sheet {...props} list="drives" Fields={DriveFields} />;
    default:
      return null;
  }
}

interface SheetProps<Key extends List> extends Props {
  list: Key;
  Fields: ComponentType<UnitProps<Kit[Key][number]>>;
}

function Sheet<Key extends List>(props: SheetProps<Key>) {
  const { kit, opened, editKit, onClose, list, Fields } = props;
  const tellGone = useTellGone();
  const units: readonly Kit[Key][number][] = kit[list];
  const place = units.findIndex((one) => one.id === opened.id);
  const unit = units[place];
  if (unit === undefined) return null;
  const put = (next: (old: readonly Kit[Key][number][]) => readonly Kit[Key][number][]) =>
    editKit((old) => withoutNames({ ...old, [list]: next(old[list]) }));
  const what = opened.kind;
  return (
    <Beside mark={markOf(opened)} title={`${capital(what)} ${unit.name}`} onClose={onClose}>
      <div className="beside-fields">
        <Fields
          kit={kit}
          unit={unit}
          path={`kit.${list}[${String(place)}]`}
          change={(some) =>
            put((old) => old.map((one) => (one.id === unit.id ? { ...one, ...some } : one)))
          }
          editKit={editKit}
        />
        {list === "families" ? null : (
          <button
            type="button"
            className="plain link"
            onClick={() => {
              onClose();
              put((old) => old.filter((one) => one.id !== unit.id));
              tellGone(`${capital(what)} ${unit.name}`);
            }}
            aria-label={`Delete ${what} ${unit.name}`}
          >
            Delete
          </button>
        )}
      </div>
    </Beside>
  );
}

function SourceOf({ kit, unit, path, change }: UnitProps<Source>) {
  return (
    <SourceFields
      source={unit}
      pockets={kit.pockets}
      cameras={kit.cameras}
      path={path}
      put={(next) => change(next)}
    />
  );
}
