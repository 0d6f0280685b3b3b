import { portsAt, valueAt } from "../../domain/carried";
import type { PlanDocument, Rehearsal } from "../../domain/types";

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
  return rehearsal.sources.map((source) => {
    const ports = portsAt(source, handMs);
    const { bank } = source;
    const charge = bank ? valueAt(bank.t_ms, bank.charge, handMs) : null;
    if (bank === null && ports.every((one) => one === null)) return null;
    return (
      <div className="source-row" key={source.id}>
        <span className="carried-place">{source.name}</span>
        <ul className="units">
          {bank && charge !== null ? (
            <li className="unit battery-unit bank-unit">
              <i style={{ width: `${String(Math.round(charge * 100))}%` }} />
              {bank.reserve > 0 ? (
                <u
                  style={{ left: `${String(Math.round(bank.reserve * 100))}%` }}
                  title="emergency reserve"
                />
              ) : null}
              <b>{Math.round(charge * 100)} %</b>
              <span>{Math.round(charge * bank.wh)} W h</span>
            </li>
          ) : null}
          {ports.map((unit, port) => (
            <li className={unit === null ? "port" : "port taken"} key={port}>
              {unit === null ? `port ${String(port + 1)} free` : (names.get(unit) ?? unit)}
            </li>
          ))}
        </ul>
      </div>
    );
  });
}
