import { portsAt, valueAt } from "../../domain/carried";
import type { PlanDocument, Rehearsal } from "../../domain/types";
import { percentText } from "../../domain/units";

interface Props {
  document: PlanDocument;
  rehearsal: Rehearsal;
  handMs: number;
}

/** Banks with their store and reserve, and what hangs on the ports of every source. */
export function Sources({ document, rehearsal, handMs }: Props) {
  const { kit } = document;
  const names = new Map(
    [...kit.chargers, ...kit.cameras, ...kit.sources].map((one) => [one.id, one.name]),
  );
  const rows = rehearsal.sources.flatMap((source) => {
    const hung = portsAt(source, handMs).flatMap((one) => (one === null ? [] : [one]));
    const { bank } = source;
    if (bank === null && hung.length === 0) return [];
    const charge = bank ? valueAt(bank.t_ms, bank.charge, handMs) : null;
    const words = hung.map((one) => names.get(one) ?? one).join(", ");
    return [{ source, bank, charge, words: words === "" ? "nothing on it" : `on it: ${words}` }];
  });
  if (rows.length === 0) return null;
  return (
    <ul className="units">
      {rows.map(({ source, bank, charge, words }) => (
        <li key={source.id} className="unit battery-unit bank-unit">
          <b>{source.name}</b>
          <i>
            {charge === null ? null : <i style={{ width: percentText(charge).replace(" ", "") }} />}
            {bank && bank.reserve > 0 ? (
              <u
                style={{ left: `${String(Math.round(bank.reserve * 100))}%` }}
                title="emergency reserve"
              />
            ) : null}
          </i>
          <span>
            {bank && charge !== null ? `${String(Math.round(charge * bank.wh))} W h` : ""}
          </span>
          <span className="unit-where">{words}</span>
        </li>
      ))}
    </ul>
  );
}
