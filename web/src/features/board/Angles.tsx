import { memo } from "react";
import type { Cell } from "../../board/Drawing";
import { nameOfCamera } from "../../domain/moment";
import { ANGLES, type PlanDocument, type Rehearsal, type ServingTold } from "../../domain/types";
import { minutesText } from "../../domain/units";

interface Props {
  document: PlanDocument;
  rehearsal: Rehearsal;
  serving: ServingTold | null;
  goTo: (cell: Cell, ms: number) => void;
}

const MINUTE_MS = 60_000;
const SHOWN = 6;

/** Variety: minutes by angle, and what else would serve where few angles film. */
export const Angles = memo(function Angles({ document, rehearsal, serving, goTo }: Props) {
  const rows = rehearsal.coverage.filter((one) => one.by === "angle" && one.asked_ms > 0);
  const most = Math.max(1, ...rows.map((one) => one.filmed_ms));
  const legs = (serving?.legs ?? []).filter((one) => one.angles > 0 && one.suggested.length > 0);
  const startOf = (id: string) => rehearsal.items.find((one) => one.id === id)?.start_ms ?? 0;
  const kinds = new Set(document.trip.items.filter((one) => one.kind === "leg").map((o) => o.id));
  const advised = legs.filter((one) => kinds.has(one.item));
  if (rows.length === 0) return null;
  return (
    <section aria-label="Angles">
      <h2>
        Angles <span className="sum">{rows.length} in use</span>
      </h2>
      <table className="margins label" aria-label="Camera minutes filmed by angle">
        <tbody>
          {rows.map((one) => (
            <tr key={one.key}>
              <th scope="row">{ANGLES[one.key as keyof typeof ANGLES]}</th>
              <td className="unit">
                <i style={{ width: `${String(Math.round((one.filmed_ms / most) * 100))}%` }} />
                <span>{minutesText(one.filmed_ms / MINUTE_MS)}</span>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {advised.length === 0 ? null : (
        <ul className="side-list">
          {advised.slice(0, SHOWN).map((leg) => (
            <li key={leg.item}>
              {leg.suggested.slice(0, 1).map((camera) => (
                <button
                  key={camera}
                  type="button"
                  className="plain side-row"
                  onClick={() => goTo({ camera, item: leg.item }, startOf(leg.item))}
                >
                  <span className="label">
                    <b>{nameOfCamera(document, camera)}</b> would serve on {leg.name}:{" "}
                    {angleOf(leg.cameras, camera)}, where{" "}
                    {leg.angles === 1 ? "one angle films" : `${String(leg.angles)} angles film`}.
                  </span>
                </button>
              ))}
            </li>
          ))}
        </ul>
      )}
    </section>
  );
});

function angleOf(cameras: ServingTold["legs"][number]["cameras"], camera: string): string {
  const found = cameras.find((one) => one.camera === camera);
  return found === undefined ? "" : ANGLES[found.angle];
}
