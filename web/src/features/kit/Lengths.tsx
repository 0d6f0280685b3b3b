import { freshCard } from "../../domain/kitEdits";
import { freshDrive, freshGear, freshLoad, GEAR_KINDS } from "../../domain/powerEdits";
import { minutesText } from "../../domain/units";
import type { Kit } from "../../domain/types";
import type { Opened } from "./opened";

interface Props {
  kit: Kit;
  editKit: (change: (old: Kit) => Kit) => void;
  onOpen: (opened: Opened) => void;
}

const LEAST_PX = 54;
const MOST_PX = 190;

/** Cards and drives as lengths by what they hold; what is used already is filled. */
export function Lengths({ kit, editKit, onOpen }: Props) {
  const largest = Math.max(1, ...kit.cards.map((one) => one.gb));
  return (
    <>
      <section aria-label="Cards">
        <h2>Cards</h2>
        <ul className="lengths label">
          {kit.cards.map((card) => (
            <li key={card.id}>
              <button
                type="button"
                className="plain length"
                data-unit={`card/${card.id}`}
                onClick={() => onOpen({ kind: "card", id: card.id })}
                style={{ width: LEAST_PX + ((MOST_PX - LEAST_PX) * card.gb) / largest }}
              >
                <i style={{ width: `${String((100 * card.used_bytes) / 1e9 / card.gb)}%` }} />
                <b>{card.name}</b>
              </button>
              <span>
                {card.gb} GB {card.speed_class}
                {card.used_bytes > 0
                  ? `, ${String(Math.round(card.used_bytes / 1e9))} GB not yet copied`
                  : ""}
              </span>
            </li>
          ))}
        </ul>
        <button
          type="button"
          className="plain link"
          disabled={kit.cards.length >= 60}
          onClick={() => editKit((old) => ({ ...old, cards: [...old.cards, freshCard(old)] }))}
        >
          Add a card
        </button>
      </section>
      <section aria-label="Things with a battery">
        <h2>Things with a battery</h2>
        <ul className="lines label">
          {kit.gear.map((gear) => (
            <li key={gear.id}>
              <button
                type="button"
                className="plain link"
                data-unit={`gear/${gear.id}`}
                onClick={() => onOpen({ kind: "gear", id: gear.id })}
              >
                {gear.name}
              </button>{" "}
              {GEAR_KINDS[gear.kind]}, {gear.wh} W h, lasts{" "}
              {minutesText((gear.wh / gear.use_w) * 60)}
            </li>
          ))}
        </ul>
        <button
          type="button"
          className="plain link"
          disabled={kit.gear.length >= 12}
          onClick={() => {
            const made = freshGear(kit);
            editKit((old) => ({ ...old, gear: [...old.gear, made] }));
            onOpen({ kind: "gear", id: made.id });
          }}
        >
          Add a microphone, stabiliser, phone …
        </button>
      </section>
      <section aria-label="Copies go to">
        <h2>Copies go to</h2>
        <ul className="lines label">
          {kit.drives.map((drive) => (
            <li key={drive.id}>
              <button
                type="button"
                className="plain link"
                data-unit={`drive/${drive.id}`}
                onClick={() => onOpen({ kind: "drive", id: drive.id })}
              >
                {drive.name}
              </button>{" "}
              {drive.free_gb} GB free
            </li>
          ))}
          {kit.loads.map((load) => (
            <li key={load.id}>
              <button
                type="button"
                className="plain link"
                data-unit={`load/${load.id}`}
                onClick={() => onOpen({ kind: "load", id: load.id })}
              >
                {load.name}
              </button>{" "}
              takes {load.wh_per_day} W h a day
            </li>
          ))}
        </ul>
        <p className="row">
          <button
            type="button"
            className="plain link"
            disabled={kit.drives.length >= 12}
            onClick={() => {
              const made = freshDrive(kit);
              editKit((old) => ({ ...old, drives: [...old.drives, made] }));
              onOpen({ kind: "drive", id: made.id });
            }}
          >
            Add a drive
          </button>
          <button
            type="button"
            className="plain link"
            disabled={kit.loads.length >= 12}
            onClick={() => {
              const made = freshLoad(kit);
              editKit((old) => ({ ...old, loads: [...old.loads, made] }));
              onOpen({ kind: "load", id: made.id });
            }}
          >
            Add another load
          </button>
        </p>
      </section>
    </>
  );
}
