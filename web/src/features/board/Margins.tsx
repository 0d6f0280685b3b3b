import { memo } from "react";
import type { CameraResult, PlanDocument, Rehearsal } from "../../domain/types";
import { gigabytesText, percentText } from "../../domain/units";

interface Props {
  document: PlanDocument;
  rehearsal: Rehearsal;
}

const OF: Partial<Record<Rehearsal["least"][number]["resource"], string>> = {
  bank: "of its charge, above cold and reserve",
  module: "of its charge, above the cold’s line",
  port: "of its port’s watts, beyond what it feeds",
};

/** How near each camera comes to empty, to its heat limit and to a full card. */
export const Margins = memo(function Margins({ document, rehearsal }: Props) {
  const asked = rehearsal.cameras.filter((one) => one.asked_ms > 0);
  if (asked.length === 0) return null;
  const sources = rehearsal.least.filter((one) => one.resource in OF);
  const nameOf = (id: string) => document.kit.cameras.find((one) => one.id === id)?.name ?? id;
  return (
    <section>
      <h2 id="margins">Least left over the trip</h2>
      <table className="margins label" aria-labelledby="margins">
        <thead>
          <tr>
            <th scope="col">camera</th>
            <th scope="col">charge</th>
            <th scope="col">to too hot</th>
            <th scope="col">room at the end</th>
          </tr>
        </thead>
        <tbody>
          {asked.map((one) => (
            <tr key={one.camera}>
              <th scope="row">{nameOf(one.camera)}</th>
              <td className="unit">
                <i style={{ width: `${String(Math.round(one.margins.charge * 100))}%` }} />
                <span>{percentText(one.margins.charge)}</span>
              </td>
              <td>{heatText(one)}</td>
              <td>{gigabytesText(one.margins.room)}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {sources.length === 0 ? null : (
        <ul className="plain-list label">
          {sources.map((one) => (
            <li key={`${one.unit}/${one.resource}`}>
              <b>{one.name}</b> {percentText(one.left)} {OF[one.resource]}
            </li>
          ))}
        </ul>
      )}
    </section>
  );
});

function heatText({ margins }: CameraResult): string {
  return margins.heat_k <= 0 ? "reached" : `${String(Math.round(margins.heat_k))} K`;
}
