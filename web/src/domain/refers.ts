import table from "./refers.json";
import type { Plan } from "./types";

/** A field of a plan's rows that names something, as the core has it: document/references. */
interface Refers {
  rows: string;
  field: string;
  names: string;
  gone: string;
  too: readonly string[];
}

type Row = Record<string, unknown>;

const REFERS: readonly Refers[] = table;

/** The plan less all that names what is gone of one kind, as the table says for each field. */
export function withoutNamed(plan: Plan, kind: string, isGone: (name: string) => boolean): Plan {
  const lists: Record<string, unknown> = { ...plan };
  for (const refers of REFERS) {
    if (refers.names !== kind || refers.gone === "stays") continue;
    const rows = lists[refers.rows];
    if (!Array.isArray(rows)) continue; // a plan of an older page may lack the list
    lists[refers.rows] = (rows as Row[]).flatMap((row) => without(row, refers, isGone));
  }
  return lists as unknown as Plan;
}

/** A row when what it names may be gone: itself, less a name, or no row. */
function without(row: Row, refers: Refers, isGone: (name: string) => boolean): Row[] {
  const value = row[refers.field];
  const names = (Array.isArray(value) ? value : [value]).filter((one) => typeof one === "string");
  const left = names.filter((name) => !isGone(name));
  if (left.length === names.length) return [row];
  if (refers.gone === "one") return left.length > 1 ? [{ ...row, [refers.field]: left }] : [];
  if (refers.gone !== "blank") return [];
  return [
    { ...row, ...Object.fromEntries([refers.field, ...refers.too].map((one) => [one, null])) },
  ];
}
