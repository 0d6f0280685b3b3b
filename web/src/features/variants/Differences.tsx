import { useTripHere } from "../../app/TripContext";
import type { VariantCompared } from "../../domain/types";
import { type Difference, stretchText, withTaken } from "../../domain/variants";
import { StatesHead } from "./StatesHead";

interface Props {
  states: readonly VariantCompared[];
  names: readonly string[];
  differences: readonly Difference[];
}

/** Stretch by stretch where the states differ; each can be taken into the plan as it is now. */
export function Differences({ states, names, differences }: Props) {
  const { kept, rehearsing } = useTripHere();
  const now = rehearsing.shown?.document;
  if (states.length < 2) return null;
  if (differences.length === 0) return <p>Every stretch is recorded the same in all of them.</p>;
  return (
    <section>
      <h2>Where they differ</h2>
      <div className="ledger-frame" role="group" aria-label="Table of the states" tabIndex={0}>
        <table className="ledger stretches label">
          <StatesHead names={names} />
          <tbody>
            {differences.map((row) => (
              <tr key={`${row.item}/${row.camera}`}>
                <th scope="row">
                  {row.itemName}, {row.cameraName}
                </th>
                {row.cells.map((cell, place) => {
                  const compared = states[place];
                  const from = compared?.state.document.plan;
                  const can =
                    compared?.variant != null &&
                    now !== undefined &&
                    from !== undefined &&
                    withTaken(now, now.plan, from, row.camera, row.item) !== null;
                  return (
                    <td key={names[place]}>
                      {stretchText(cell)}
                      {can ? (
                        <button
                          type="button"
                          className="plain link take"
                          aria-label={`Take ${row.itemName}, ${row.cameraName} from ${names[place] ?? ""}`}
                          onClick={() =>
                            kept.edit((doc) => ({
                              ...doc,
                              plan:
                                withTaken(
                                  { ...now, trip: doc.trip },
                                  doc.plan,
                                  from,
                                  row.camera,
                                  row.item,
                                ) ?? doc.plan,
                            }))
                          }
                        >
                          take this stretch
                        </button>
                      ) : null}
                    </td>
                  );
                })}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </section>
  );
}
