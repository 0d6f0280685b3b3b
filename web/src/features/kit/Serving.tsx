import { useMemo, useState } from "react";
import { tellServing } from "../../api/queries";
import { usePumped } from "../../api/usePumped";
import { useTripHere } from "../../app/TripContext";
import { withoutServing, withServing } from "../../domain/kitEdits";
import { ACTIVITIES } from "../../domain/routeEdits";
import {
  ANGLES,
  type Kit,
  MOUNTS,
  type Serving as Said,
  type ServingLine,
} from "../../domain/types";
import { Pick, TextIn } from "../../ui/fields";

interface Props {
  kit: Kit;
  editKit: (change: (old: Kit) => Kit) => void;
}

type What = Said["what"];
type Where = Said["where"];

const WHATS: readonly (readonly [What, string])[] = [
  ...(Object.entries(MOUNTS) as [What, string][]).filter(([what]) => what !== "other"),
  ...(Object.entries(ANGLES) as [What, string][]),
];
const WHERES: readonly (readonly [Where, string])[] = [
  ...(Object.entries(ACTIVITIES) as [Where, string][]),
  ["stop", "stop"],
];
const MARKS: Record<Said["verdict"], string> = { well: "✓", poorly: "~", never: "✕" };
const VERDICTS = [
  { value: "well", name: "serves well" },
  { value: "poorly", name: "serves poorly" },
  { value: "never", name: "never" },
] as const;
const LONGEST_WHY = 120;

/** What serves where: mounts and angles down, activities across; each cell may be said anew. */
export function Serving({ kit, editKit }: Props) {
  const { rehearsing } = useTripHere();
  const shown = rehearsing.shown?.document;
  const ask = useMemo(() => (shown ? { ...shown, kit } : null), [shown, kit]);
  const matrix = usePumped(tellServing, ask).result?.matrix ?? [];
  const [open, setOpen] = useState<{ what: What; where: Where } | null>(null);
  const lineOf = (what: What, where: Where) =>
    matrix.find((one) => one.what === what && one.where === where);
  const chosen = open ? cellOf(kit, open.what, open.where, lineOf(open.what, open.where)) : null;
  return (
    <section aria-label="What serves where">
      <p className="hint">
        Habits of people who film themselves; change a cell to what you know. Event rules, local law
        and makers’ instructions come first.
      </p>
      <div className="matrix-scroll">
        <table className="matrix label">
          <thead>
            <tr>
              <td />
              {WHERES.map(([where, name]) => (
                <th key={where} scope="col">
                  <span>{name}</span>
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {WHATS.map(([what, name]) => (
              <tr key={what}>
                <th scope="row">{name}</th>
                {WHERES.map(([where, whereName]) => {
                  const cell = cellOf(kit, what, where, lineOf(what, where));
                  return (
                    <td key={where}>
                      <button
                        type="button"
                        className={`plain mark ${cell.verdict}${cell.own ? " own" : ""}`}
                        aria-label={`${name}, ${whereName}: ${cell.verdict}`}
                        aria-pressed={open?.what === what && open.where === where}
                        onClick={() => setOpen({ what, where })}
                      >
                        {MARKS[cell.verdict]}
                      </button>
                    </td>
                  );
                })}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      {open === null || chosen === null ? null : (
        <Cell
          {...open}
          own={chosen.own}
          verdict={chosen.verdict}
          why={chosen.why}
          say={(said) => editKit((old) => withServing(old, said))}
          unsay={() => editKit((old) => withoutServing(old, open))}
        />
      )}
    </section>
  );
}

/** A cell as the person said it, else as the core tells it; what is not told serves well. */
function cellOf(kit: Kit, what: What, where: Where, line: ServingLine | undefined) {
  const own = kit.serving.find((one) => one.what === what && one.where === where);
  const known = own ?? line;
  return { own: own !== undefined, verdict: known?.verdict ?? "well", why: known?.why ?? "" };
}

interface CellProps {
  what: What;
  where: Where;
  own: boolean;
  verdict: Said["verdict"];
  why: string;
  say: (said: Said) => void;
  unsay: () => void;
}

function Cell({ what, where, own, verdict, why, say, unsay }: CellProps) {
  const names = { ...MOUNTS, ...ANGLES };
  const place = where === "stop" ? "at a stop" : `on a ${where} leg`;
  return (
    <div className="matrix-cell">
      <p className="label">
        <b>{names[what]}</b> {place}
        {own ? ", as you say" : ", as is usual"}
      </p>
      <Pick
        label={`${names[what]} ${place}`}
        value={verdict}
        choices={VERDICTS}
        onPick={(next) => say({ what, where, verdict: next, why })}
      />
      <TextIn
        key={`${what}${where}`}
        label="Why"
        value={why}
        onCommit={(text) => say({ what, where, verdict, why: text.trim().slice(0, LONGEST_WHY) })}
      />
      {own ? (
        <button type="button" className="plain link" onClick={unsay}>
          As is usual again
        </button>
      ) : null}
    </div>
  );
}
