import { type Carried as Unit, carriedAt, filmedOnStore } from "../../domain/moment";
import type { Clock } from "../../domain/clock";
import type { PlanDocument, Rehearsal } from "../../domain/types";
import { gigabytesText, minutesText, percentText } from "../../domain/units";

interface Props {
  document: PlanDocument;
  rehearsal: Rehearsal;
  clock: Clock;
  handMs: number;
}

/** Batteries and cards at the hand's moment, and what one card would take with it. */
export function Carried({ document, rehearsal, clock, handMs }: Props) {
  const batteries = carriedAt(rehearsal.batteries, rehearsal.cameras, handMs, false);
  const cards = carriedAt(rehearsal.cards, rehearsal.cameras, handMs, true);
  const inside = batteries.filter((one) => one.place !== "bag");
  const bag = batteries.filter((one) => one.place === "bag");
  const worst = cards
    .map((card) => ({ name: card.name, ms: filmedOnStore(rehearsal, card.id, handMs) }))
    .reduce((a, b) => (b.ms > a.ms ? b : a), { name: "", ms: 0 });
  const owner = (id: string) => document.kit.cameras.find((one) => one.id === id)?.name ?? id;
  return (
    <section>
      <h2>What you carry, {clock.full(handMs)}</h2>
      <div className="carried label">
        <span className="carried-place">in cameras</span>
        <Batteries units={inside} title={(unit) => owner(unit.place)} />
        <span className="carried-place">bag</span>
        <Batteries units={bag} title={() => "in the bag"} />
        <span className="carried-place">cards</span>
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
      </div>
      <p className="loss-line">
        {worst.ms > 0
          ? `If ${worst.name} were lost now: ${minutesText(worst.ms / 60_000)} of footage, in one place only.`
          : "Nothing is filmed yet at this moment."}
      </p>
      <p className="loss-line">
        The whole trip: {minutesText(rehearsal.footage_ms / 60_000)} of footage in {rehearsal.files}{" "}
        files; looking through takes about {minutesText(rehearsal.looking_through_ms / 60_000)}{" "}
        (assumed).
      </p>
    </section>
  );
}

function Batteries({ units, title }: { units: readonly Unit[]; title: (unit: Unit) => string }) {
  if (units.length === 0) return <span className="none">none</span>;
  return (
    <ul className="units">
      {units.map((unit) => (
        <li key={unit.id} className="unit battery-unit" title={title(unit)}>
          <i style={{ width: percentText(unit.level).replace(" ", "") }} />
          <b>{unit.name}</b>
          <span>
            {Math.round(unit.level * 100)}
            <span className="sr"> per cent, {title(unit)}</span>
          </span>
        </li>
      ))}
    </ul>
  );
}

function short(name: string): string {
  return name.replace(/ memory$/, "");
}
