import { memo } from "react";
import type { CameraResult, PlanDocument, Rehearsal } from "../../domain/types";
import { gigabytesText, percentText } from "../../domain/units";

interface Props {
  document: PlanDocument;
  rehearsal: Rehearsal;
}

/** How near each camera comes to empty, to its heat limit and to a full card. */
export const Margins = memo(function Margins({ document, rehearsal }: Props) {
  const asked = rehearsal.cameras.filter((one) => one.asked_ms > 0);
  if (asked.length === 0) return null;
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
    </section>
  );
});

function heatText({ margins }: CameraResult): string {
  return margins.heat_k <= 0 ? "reached" : `${String(Math.round(margins.heat_k))} K`;
}
