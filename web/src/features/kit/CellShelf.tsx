import { type DragEvent, type KeyboardEvent, useEffect, useRef, useState } from "react";
import { freshBattery, freshFamily } from "../../domain/kitEdits";
import { freshPocket } from "../../domain/powerEdits";
import type { Battery, Kit, Plan } from "../../domain/types";
import { degreesText } from "../../domain/units";
import { useRoving } from "../../ui/useRoving";
import type { Opened } from "./opened";

interface Props {
  kit: Kit;
  /** Of the open trip: what is in each camera as it starts. */
  plan: Plan | null;
  editKit: (change: (old: Kit) => Kit) => void;
  fit: (camera: string, battery: string) => void;
  onOpen: (opened: Opened) => void;
}

interface Place {
  /** A pocket's key, "" for the bag, or "camera/…". */
  key: string;
  name: string;
  note: string;
  cells: readonly Battery[];
}

const CAMERA = "camera/";
const WARM: Record<Kit["pockets"][number]["warmth"], string> = {
  inside: degreesText(25),
  outer: "half way to the air",
  bag: "as the air",
};

/**
 * Batteries drawn in their pockets: dragged, or lifted with Space and set down with the arrows.
 *
 * All of them, and their pockets, are one stop of Tab, walked by arrows; where a lifted one would go
 * is spoken.
 */
export function CellShelf({ kit, plan, editKit, fit, onOpen }: Props) {
  const [lifted, setLifted] = useState<{ id: string; to: number } | null>(null);
  const [over, setOver] = useState<string | null>(null);
  const [said, setSaid] = useState("");
  const shelf = useRef<HTMLDivElement>(null);
  const roving = useRoving(shelf, "button");
  const setDown = useRef<string | null>(null);
  useEffect(() => {
    if (setDown.current === null) return;
    shelf.current?.querySelector<HTMLElement>(`[data-unit="battery/${setDown.current}"]`)?.focus();
    setDown.current = null;
  });
  const places = placesOf(kit, plan);
  const put = (id: string, key: string) => {
    if (key.startsWith(CAMERA)) fit(key.slice(CAMERA.length), id);
    else
      editKit((old) => ({
        ...old,
        batteries: old.batteries.map((one) =>
          one.id === id ? { ...one, pocket: key === "" ? null : key } : one,
        ),
      }));
  };
  const takes = (place: Place, id: string) => {
    const camera = kit.cameras.find((one) => `${CAMERA}${one.id}` === place.key);
    const battery = kit.batteries.find((one) => one.id === id);
    return camera === undefined || camera.battery_family === battery?.family;
  };
  const onKey = (event: KeyboardEvent, battery: Battery, at: number) => {
    const up = lifted?.id === battery.id ? lifted : null;
    const step = { ArrowLeft: -1, ArrowUp: -1, ArrowRight: 1, ArrowDown: 1 }[event.key];
    if (event.key === " " && up === null) {
      setLifted({ id: battery.id, to: at });
      setSaid(`${battery.name} lifted: arrows carry it, Enter sets it down, Escape leaves it.`);
    } else if (up !== null && step !== undefined) {
      const onward = step > 0 ? places.slice(up.to + 1) : places.slice(0, up.to).reverse();
      const next = onward.find((one) => takes(one, battery.id));
      if (next !== undefined) setLifted({ id: battery.id, to: places.indexOf(next) });
      setSaid(next === undefined ? "No place further on takes it." : `${next.name}?`);
    } else if (up !== null && (event.key === "Enter" || event.key === " ")) {
      const place = places[up.to];
      if (place !== undefined) put(battery.id, place.key);
      setDown.current = battery.id;
      setLifted(null);
      setSaid(`${battery.name}: ${place?.name ?? ""}.`);
    } else if (up !== null && event.key === "Escape") {
      setLifted(null);
      setSaid(`${battery.name} stays.`);
    } else return;
    event.preventDefault();
    event.stopPropagation(); // the arrows carry it, they do not walk
  };
  return (
    <section aria-label="Batteries" className="cell-shelf">
      <h2>
        Batteries{" "}
        <small className="hint">
          {sumsOf(kit)}. Drag one, or lift it with Space and set it down with the arrows.
        </small>
      </h2>
      <p role="status" className="sr">
        {said}
      </p>
      <div
        ref={shelf}
        className="cell-places label"
        role="presentation"
        onFocus={roving.onFocus}
        onKeyDown={roving.onKeyDown}
      >
        {places.map((place, at) => (
          <div
            key={place.key}
            className={[
              "cell-place",
              over === place.key || places[lifted?.to ?? -1] === place ? "over" : "",
            ].join(" ")}
            role="group"
            aria-label={place.name}
            onDragOver={(event: DragEvent) => {
              event.preventDefault();
              setOver(place.key);
            }}
            onDragLeave={() => setOver(null)}
            onDrop={(event: DragEvent) => {
              event.preventDefault();
              setOver(null);
              const id = event.dataTransfer.getData("text/plain");
              if (takes(place, id)) put(id, place.key);
            }}
          >
            <div className="cell-row">
              {place.cells.map((battery) => (
                <button
                  key={battery.id}
                  type="button"
                  draggable
                  data-unit={`battery/${battery.id}`}
                  className={lifted?.id === battery.id ? "plain cell lifted" : "plain cell"}
                  aria-label={`Battery ${battery.name}${battery.health === 1 ? "" : ` ${percent(battery.health)}`}, ${percent(battery.charge)} charged, ${place.name}${lifted?.id === battery.id ? `, set down: ${places[lifted.to]?.name ?? ""}` : ""}`}
                  onDragStart={(event) => event.dataTransfer.setData("text/plain", battery.id)}
                  onClick={() => onOpen({ kind: "battery", id: battery.id })}
                  onKeyDown={(event) => onKey(event, battery, at)}
                >
                  <i style={{ height: `${String(Math.round(battery.charge * 62))}px` }} />
                  <b>{battery.name}</b>{" "}
                  {battery.health === 1 ? null : (
                    <small title="health">{percent(battery.health)}</small>
                  )}
                </button>
              ))}
            </div>
            <PlaceName place={place} onOpen={onOpen} />
          </div>
        ))}
      </div>
      <ShelfAdds kit={kit} editKit={editKit} onOpen={onOpen} />
    </section>
  );
}

/** Families and their batteries, and pockets: opened, and added. */
function ShelfAdds({ kit, editKit, onOpen }: Pick<Props, "kit" | "editKit" | "onOpen">) {
  return (
    <p className="row shelf-adds">
      {kit.families.map((family) => (
        <span key={family.id} className="row">
          <button
            type="button"
            className="plain link"
            data-unit={`family/${family.id}`}
            onClick={() => onOpen({ kind: "family", id: family.id })}
          >
            Family {family.name}: {((family.mah * family.nominal_v) / 1000).toFixed(1)} W h
          </button>
          <button
            type="button"
            className="plain link"
            disabled={kit.batteries.length >= 60}
            onClick={() =>
              editKit((old) => ({
                ...old,
                batteries: [...old.batteries, freshBattery(old, family)],
              }))
            }
          >
            Add a battery {family.name}
          </button>
        </span>
      ))}
      <button
        type="button"
        className="plain link"
        disabled={kit.families.length >= 20}
        onClick={() => {
          const made = freshFamily(kit);
          editKit((old) => ({ ...old, families: [...old.families, made] }));
          onOpen({ kind: "family", id: made.id });
        }}
      >
        Add a battery family
      </button>
      <button
        type="button"
        className="plain link"
        disabled={kit.pockets.length >= 20}
        onClick={() => {
          const made = freshPocket(kit);
          editKit((old) => ({ ...old, pockets: [...old.pockets, made] }));
          onOpen({ kind: "pocket", id: made.id });
        }}
      >
        Add a pocket
      </button>
    </p>
  );
}

function PlaceName({ place, onOpen }: { place: Place; onOpen: Props["onOpen"] }) {
  const isPocket = place.key !== "" && !place.key.startsWith(CAMERA);
  return (
    <div className="cell-place-name">
      {isPocket ? (
        <button
          type="button"
          className="plain"
          data-unit={`pocket/${place.key}`}
          onClick={() => onOpen({ kind: "pocket", id: place.key })}
        >
          {place.name}
        </button>
      ) : (
        <span>{place.name}</span>
      )}
      {place.note === "" ? null : <small>{place.note}</small>}
    </div>
  );
}

function percent(share: number): string {
  return `${String(Math.round(share * 100))} %`;
}

/** Pockets, the bag, and each camera with what the plan puts into it at the start. */
function placesOf(kit: Kit, plan: Plan | null): Place[] {
  const fitted = new Map(
    (plan?.cameras ?? []).flatMap((one) =>
      one.battery == null ? [] : ([[one.battery, one.camera]] as const),
    ),
  );
  const free = kit.batteries.filter((one) => !fitted.has(one.id));
  const known = new Set(kit.pockets.map((one) => one.id));
  return [
    ...kit.pockets.map((one) => ({
      key: one.id,
      name: one.name,
      note: one.kept_c == null ? WARM[one.warmth] : `kept at ${degreesText(one.kept_c)}`,
      cells: free.filter((battery) => battery.pocket === one.id),
    })),
    {
      key: "",
      name: "the bag",
      note: "as the air",
      cells: free.filter((one) => one.pocket == null || !known.has(one.pocket)),
    },
    ...(plan === null ? [] : kit.cameras)
      .filter((one) => one.battery_comes_out)
      .map((camera) => ({
        key: `${CAMERA}${camera.id}`,
        name: `in ${camera.name}`,
        note: "",
        cells: kit.batteries.filter((one) => fitted.get(one.id) === camera.id),
      })),
  ];
}

function sumsOf(kit: Kit): string {
  const counted = kit.families.map((family) => {
    const count = kit.batteries.filter((one) => one.family === family.id).length;
    return `${String(count)} of ${family.name}`;
  });
  return counted.length === 0 ? "none yet" : counted.join(" · ");
}
