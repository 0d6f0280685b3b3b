import { memo, type ReactNode } from "react";
import { pilesOf, type Unit, unitsAt, worstLoss } from "../../domain/carried";
import type { Clock } from "../../domain/clock";
import type { PlanDocument, Rehearsal } from "../../domain/types";
import {
  countText,
  expectedText,
  gigabytesText,
  minutesText,
  percentText,
} from "../../domain/units";
import { PocketTo } from "./PocketTo";
import { Sources } from "./Sources";

interface Props {
  document: PlanDocument;
  rehearsal: Rehearsal;
  clock: Clock;
  handMs: number;
}

const FREEZING_C = 0;

/** Batteries by pocket, sources and their ports, cards, and what would be lost, at the hand's moment. */
export const Carried = memo(function Carried({ document, rehearsal, clock, handMs }: Props) {
  const batteries = unitsAt(rehearsal.batteries, rehearsal.cameras, handMs, false);
  const cards = unitsAt(rehearsal.cards, rehearsal.cameras, handMs, true);
  const worst = worstLoss(rehearsal, handMs);
  const names = new Map(
    [...rehearsal.cards, ...document.kit.drives, ...document.kit.cameras].map((one) => [
      one.id,
      one.name,
    ]),
  );
  const owner = (id: string) => names.get(id) ?? id;
  return (
    <section>
      <h2>What you carry, {clock.full(handMs)}</h2>
      <div className="carried label">
        {pilesOf(document.kit, rehearsal, batteries).map((pile) => (
          <Pile key={pile.key} name={pile.name}>
            <Batteries
              units={pile.units}
              title={(unit) => (pile.key === "cameras" ? owner(unit.place) : pile.name)}
              moved={(unit) => (
                <PocketTo document={document} rehearsal={rehearsal} handMs={handMs} unit={unit} />
              )}
            />
          </Pile>
        ))}
        <Sources document={document} rehearsal={rehearsal} handMs={handMs} />
        <Pile name="cards">
          <ul className="units">
            {cards.map((card) => (
              <li
                key={card.id}
                className="unit card-unit"
                title={card.place === "bag" ? "in the bag" : owner(card.place)}
              >
                <i
                  style={{
                    width: `${String(100 * Math.max(0, 1 - card.level / Math.max(1, card.size)))}%`,
                  }}
                />
                <b>{short(card.name)}</b>
                <span>{gigabytesText(Math.max(0, card.size - card.level))}</span>
              </li>
            ))}
          </ul>
        </Pile>
      </div>
      <p className="loss-line">
        {worst.ms > 0
          ? `If ${owner(worst.place)} were lost now: ${minutesText(worst.ms / 60_000)} of footage that exist nowhere else.`
          : "Nothing exists in one place only at this moment."}
      </p>
      {rehearsal.largest_loss ? (
        <p className="loss-line">
          Largest single loss: {rehearsal.largest_loss.name},{" "}
          {minutesText(rehearsal.largest_loss.filmed_ms / 60_000)} of footage, from{" "}
          {clock.full(Math.min(rehearsal.largest_loss.at_ms, rehearsal.duration_ms))}.
        </p>
      ) : null}
      <p className="loss-line">
        The whole trip: {minutesText(rehearsal.footage_ms / 60_000)} of footage in{" "}
        {countText(rehearsal.files, "file")}; looking through takes about{" "}
        {minutesText(rehearsal.looking_through_ms / 60_000)} (assumed).
      </p>
      <Caught rehearsal={rehearsal} document={document} />
    </section>
  );
});

/** Moments, and how many seconds of them are in the footage that is kept. */
function Caught({ rehearsal, document }: { rehearsal: Rehearsal; document: PlanDocument }) {
  if (rehearsal.moments.length === 0) return null;
  const itemName = (id: string) => document.trip.items.find((one) => one.id === id)?.name ?? id;
  return (
    <>
      <h3>Moments caught</h3>
      <ul className="caught label">
        {rehearsal.moments.map((one) => (
          <li key={`${one.item} ${one.moment}`}>
            <b>
              {Math.round(one.caught_s)} of {Math.round(one.of_s)} s
            </b>{" "}
            {one.moment}, {itemName(one.item)} ({expectedText(one.whole)} of {one.count} whole)
          </li>
        ))}
      </ul>
    </>
  );
}

function Pile({ name, children }: { name: string; children: ReactNode }) {
  return (
    <>
      <span className="carried-place">{name}</span>
      {children}
    </>
  );
}

interface BatteriesProps {
  units: readonly Unit[];
  title: (unit: Unit) => string;
  moved: (unit: Unit) => ReactNode;
}

function Batteries({ units, title, moved }: BatteriesProps) {
  return (
    <ul className="units">
      {units.map((unit) => (
        <li
          key={unit.id}
          className={
            unit.cellC !== null && unit.cellC <= FREEZING_C
              ? "unit battery-unit frozen"
              : "unit battery-unit"
          }
          title={title(unit)}
        >
          <i style={{ width: percentText(unit.level).replace(" ", "") }} />
          <b>{unit.name}</b>
          <span>
            {Math.round(unit.level * 100)} %<span className="sr">, {title(unit)}</span>
            {unit.cellC === null ? null : <em> {degrees(unit.cellC)}</em>}
          </span>
          {moved(unit)}
        </li>
      ))}
    </ul>
  );
}

function degrees(celsius: number): string {
  return `${String(Math.round(celsius)).replace("-", "\u2212")}°`;
}

function short(name: string): string {
  return name.replace(/ memory$/, "");
}
