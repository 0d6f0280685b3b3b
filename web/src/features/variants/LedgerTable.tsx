import type { VariantCompared } from "../../domain/types";
import { type LedgerRow, ledgerRows, legRows } from "../../domain/variants";
import { StatesHead } from "./StatesHead";

interface Props {
  states: readonly VariantCompared[];
  names: readonly string[];
  when: (place: number, ms: number) => string;
}

/** Figures side by side; what is another than the first state's stands out in weight, not hue. */
export function LedgerTable({ states, names, when }: Props) {
  const legs = legRows(states);
  return (
    <>
      <Rows names={names} rows={ledgerRows(states, when)} />
      {legs.length === 0 ? null : (
        <details>
          <summary>Filmed of asked, leg by leg, where it differs</summary>
          <Rows names={names} rows={legs} />
        </details>
      )}
    </>
  );
}

function Rows({ names, rows }: { names: readonly string[]; rows: readonly LedgerRow[] }) {
  return (
    <div className="ledger-frame" role="group" aria-label="Table of the states" tabIndex={0}>
      <table className="ledger label">
        <StatesHead names={names} />
        <tbody>
          {rows.map((row) => (
            <tr key={row.name}>
              <th scope="row">{row.name}</th>
              {row.cells.map((cell, place) => (
                <td key={names[place]} className={cell.differs ? "differs" : undefined}>
                  {cell.text}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
