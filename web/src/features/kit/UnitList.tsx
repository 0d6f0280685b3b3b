import { Button } from "@mui/material";
import type { ReactNode } from "react";
import { withoutUnit, withUnit } from "../../domain/kitEdits";

interface Props<Unit extends { id: string; name: string }> {
  title: string;
  what: string;
  units: readonly Unit[];
  most: number;
  put: (units: Unit[]) => void;
  add: readonly { name: string; fresh: () => Unit }[];
  fields: (unit: Unit, place: number, change: (some: Partial<Unit>) => void) => ReactNode;
  hint?: string;
}

/** Labelled units of one kind, each with its fields, deleted and added. */
export function UnitList<Unit extends { id: string; name: string }>(props: Props<Unit>) {
  const { title, what, units, most, put, add, fields, hint } = props;
  return (
    <section aria-label={title}>
      <h2>{title}</h2>
      {hint === undefined ? null : <p className="hint">{hint}</p>}
      <ul className="unit-rows">
        {units.map((unit, place) => (
          <li key={unit.id} className="row" aria-label={`${what} ${unit.name}`}>
            {fields(unit, place, (some) => put(withUnit(units, { ...unit, ...some })))}
            <button
              type="button"
              className="plain link"
              onClick={() => put(withoutUnit(units, unit.id))}
              aria-label={`Delete ${what} ${unit.name}`}
            >
              Delete
            </button>
          </li>
        ))}
      </ul>
      {add.map((one) => (
        <Button
          key={one.name}
          disabled={units.length >= most}
          onClick={() => put([...units, one.fresh()])}
        >
          {one.name}
        </Button>
      ))}
    </section>
  );
}
