import { freshCharger, freshSource, portWatts, SOURCE_KINDS } from "../../domain/powerEdits";
import type { Kit, Source } from "../../domain/types";
import type { Opened } from "./opened";

interface Props {
  kit: Kit;
  editKit: (change: (old: Kit) => Kit) => void;
  onOpen: (opened: Opened) => void;
}

const KINDS = Object.keys(SOURCE_KINDS) as Source["kind"][];

/** Sources as wells with their ports, chargers with their bays. */
export function Wells({ kit, editKit, onOpen }: Props) {
  return (
    <section aria-label="Power">
      <h2>Power</h2>
      <div className="wells label">
        {kit.sources.map((source) => (
          <Well
            key={source.id}
            mark={`source/${source.id}`}
            name={source.name}
            note={noteOf(kit, source)}
            below={portWatts(source).map((watts) => `${String(watts)} W`)}
            onOpen={() => onOpen({ kind: "source", id: source.id })}
          />
        ))}
        {kit.chargers.map((charger) => (
          <Well
            key={charger.id}
            mark={`charger/${charger.id}`}
            name={charger.name}
            note={`takes ${String(charger.in_w)} W`}
            below={Array.from({ length: charger.bays }, () => familiesOf(kit, charger.families))}
            onOpen={() => onOpen({ kind: "charger", id: charger.id })}
          />
        ))}
      </div>
      <p className="row">
        {KINDS.map((kind) => (
          <button
            key={kind}
            type="button"
            className="plain link"
            disabled={kit.sources.length >= 12 || (kind === "module" && kit.cameras.length === 0)}
            onClick={() => {
              const made = freshSource(kit, kind);
              editKit((old) => ({ ...old, sources: [...old.sources, made] }));
              onOpen({ kind: "source", id: made.id });
            }}
          >
            Add a {SOURCE_KINDS[kind]}
          </button>
        ))}
        {kit.families.length === 0 ? null : (
          <button
            type="button"
            className="plain link"
            disabled={kit.chargers.length >= 12}
            onClick={() => {
              const made = freshCharger(kit);
              editKit((old) => ({ ...old, chargers: [...old.chargers, made] }));
              onOpen({ kind: "charger", id: made.id });
            }}
          >
            Add a charger
          </button>
        )}
      </p>
    </section>
  );
}

interface WellProps {
  mark: string;
  name: string;
  note: string;
  below: readonly string[];
  onOpen: () => void;
}

function Well({ mark, name, note, below, onOpen }: WellProps) {
  return (
    <button type="button" className="plain well" data-unit={mark} onClick={onOpen}>
      <span>
        <b>{name}</b> <small>{note}</small>
      </span>
      <span className="well-ports">
        {below.map((words, place) => (
          <span key={place} className="well-port">
            <i />
            <small>{words}</small>
          </span>
        ))}
      </span>
    </button>
  );
}

function noteOf(kit: Kit, source: Source): string {
  if (source.kind === "bank")
    return `${String(source.mah)} mAh, ${String(Math.round(source.charge * 100))} %`;
  if (source.kind === "module") {
    const camera = kit.cameras.find((one) => one.id === source.fits)?.name ?? "no camera";
    const known =
      source.lasts_min == null
        ? `${String(source.mah)} mAh`
        : `lasts ${String(source.lasts_min)} min with it`;
    return `on ${camera}, ${known}`;
  }
  return SOURCE_KINDS[source.kind];
}

function familiesOf(kit: Kit, families: readonly string[]): string {
  return kit.families
    .filter((one) => families.includes(one.id))
    .map((one) => one.name)
    .join(", ");
}
