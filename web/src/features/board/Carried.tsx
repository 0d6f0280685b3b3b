import { memo, type ReactNode } from "react";
import { pilesOf, type Unit, unitsAt } from "../../domain/carried";
import type { Clock } from "../../domain/clock";
import { batteryMinutes, rateAt, roomMinutes, takers } from "../../domain/minutesLeft";
import { givesOutMs } from "../../domain/moment";
import type { PlanDocument, Rehearsal } from "../../domain/types";
import { degreesText, gigabytesText, lastsText, percentText } from "../../domain/units";
import { cardsAt } from "../../domain/written";
import { GearTold } from "./GearTold";
import { PocketTo } from "./PocketTo";
import { Sources } from "./Sources";

interface Props {
  document: PlanDocument;
  rehearsal: Rehearsal;
  clock: Clock;
  handMs: number;
}

const FREEZING_C = 0;

/** Batteries by where they are, sources and their ports, and cards, at the hand's moment. */
export const Carried = memo(function Carried({ document, rehearsal, clock, handMs }: Props) {
  const batteries = unitsAt(rehearsal.batteries, rehearsal.cameras, handMs);
  const cards = cardsAt(document, rehearsal, handMs);
  const laid = rehearsal.items.find((one) => one.start_ms <= handMs && handMs < one.end_ms);
  const names = new Map(document.kit.cameras.map((one) => [one.id, one.name]));
  const { cameras } = document.kit;
  const where = (unit: Unit, pile: string) => {
    const camera = names.get(unit.place);
    if (camera === undefined) {
      const family = document.kit.batteries.find((one) => one.id === unit.id)?.family;
      const mine = takers(cameras, (one) => one.battery_family === family);
      const rate = rateAt(document, rehearsal, mine, handMs);
      const cold = unit.cellC !== null && unit.cellC <= FREEZING_C; // it would give less, by much
      return lasting(pile, cold ? null : batteryMinutes(rate, unit.level, unit.size));
    }
    const ends = givesOutMs(rehearsal, unit.place, handMs);
    return ends === null ? `in ${camera}` : `in ${camera}, to ${clock.time(ends)}`;
  };
  const rateOfCard = (card: Unit) => {
    const gb = document.kit.cards.find((one) => one.id === card.id)?.gb ?? 0;
    const takes = takers(
      cameras,
      ({ memory }) => memory.kind === "slot" && memory.largest_gb >= gb,
    );
    return rateAt(document, rehearsal, names.has(card.place) ? [card.place] : takes, handMs);
  };
  return (
    <section className="carried label">
      <h2>
        At {clock.full(handMs)}
        {laid ? `, ${laid.name}` : ""}
      </h2>
      <ul className="units">
        {pilesOf(document.kit, rehearsal, batteries).flatMap((pile) =>
          pile.units.map((unit) => (
            <UnitRow
              key={unit.id}
              kind="battery-unit"
              name={unit.name}
              share={unit.level}
              left={percentText(unit.level)}
              where={where(unit, pile.name)}
              cold={unit.cellC !== null && unit.cellC <= FREEZING_C ? unit.cellC : null}
            >
              <PocketTo document={document} rehearsal={rehearsal} handMs={handMs} unit={unit} />
            </UnitRow>
          )),
        )}
      </ul>
      <GearTold document={document} rehearsal={rehearsal} clock={clock} handMs={handMs} />
      <Sources document={document} rehearsal={rehearsal} handMs={handMs} />
      <ul className="units">
        {cards.map((card) => (
          <UnitRow
            key={card.id}
            kind="card-unit"
            name={card.name.replace(/ memory$/, "")}
            share={1 - card.level / Math.max(1, card.size)}
            left={gigabytesText(Math.max(0, card.size - card.level))}
            where={lasting(
              names.has(card.place) ? `in ${names.get(card.place) ?? ""}` : "bag",
              roomMinutes(rateOfCard(card), card.size - card.level),
            )}
            cold={null}
          />
        ))}
      </ul>
    </section>
  );
});

/** "1 h 20, bag": how long it would last in the mode that runs, or runs next; and where it is. */
function lasting(where: string, minutes: number | null): string {
  return minutes === null ? where : `${lastsText(minutes)}, ${where}`;
}

interface RowProps {
  kind: "battery-unit" | "card-unit";
  name: string;
  /** Of what it holds [0..1]. */
  share: number;
  left: string;
  where: string;
  /** Its temperature, where that forbids charging [C]. */
  cold: number | null;
  children?: ReactNode;
}

/** One unit: its name, a length that narrows as it is spent, what is left, and where it is. */
function UnitRow({ kind, name, share, left, where, cold, children }: RowProps) {
  return (
    <li className={cold === null ? `unit ${kind}` : `unit ${kind} frozen`}>
      <b>{name}</b>
      <i>
        <i style={{ width: `${String(Math.round(Math.min(1, Math.max(0, share)) * 100))}%` }} />
      </i>
      <span>{left}</span>
      <span className="unit-where">
        {where}
        {cold === null ? "" : `, ${degreesText(cold)}`}
      </span>
      {children}
    </li>
  );
}
