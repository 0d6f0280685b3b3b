import table from "./refers.json";
import type { Kit, Plan } from "./types";

/** A field of a plan's rows that names something, as the core has it: document/references. */
export interface Refers {
  rows: string;
  field: string;
  names: string;
  gone: string;
  too: readonly string[];
}

type Row = Record<string, unknown>;

export const REFERS: readonly Refers[] = table;

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

/** The plan less all that names units which the kit has not: the same one if there are none. */
export function withoutMissing(plan: Plan, kit: Kit): Plan {
  const has = unitsOf(kit);
  let left = plan;
  for (const [kind, keys] of Object.entries(has)) {
    if (isNamedButMissing(left, kind, keys)) left = withoutNamed(left, kind, (id) => !keys.has(id));
  }
  return left;
}

function isNamedButMissing(plan: Plan, kind: string, keys: ReadonlySet<string>): boolean {
  const lists = plan as unknown as Record<string, unknown>;
  return REFERS.some(({ rows, field, names }) => {
    const list = lists[rows];
    if (names !== kind || !Array.isArray(list)) return false;
    return (list as Row[]).some((row) => namesOf(row, field).some((id) => !keys.has(id)));
  });
}

/** The keys of a kit's units by kind, as the core has them: document/units. */
function unitsOf(kit: Kit): Record<string, ReadonlySet<string>> {
  const of = (...lists: readonly (readonly { id: string }[])[]) =>
    new Set(lists.flatMap((list) => list.map((one) => one.id)));
  const stores = kit.sources.filter((one) => one.kind === "bank" || one.kind === "module");
  return {
    camera: of(kit.cameras),
    battery: of(kit.batteries),
    card: of(kit.cards),
    source: of(kit.sources),
    drive: of(kit.drives),
    gear: of(kit.gear),
    unit: of(kit.batteries, stores, kit.gear),
    power: of(kit.sources, kit.chargers, kit.cameras),
  };
}

function namesOf(row: Row, field: string): string[] {
  const value = row[field];
  return (Array.isArray(value) ? value : [value]).filter((one) => typeof one === "string");
}

/** A row when what it names may be gone: itself, less a name, or no row. */
function without(row: Row, refers: Refers, isGone: (name: string) => boolean): Row[] {
  const names = namesOf(row, refers.field);
  const left = names.filter((name) => !isGone(name));
  if (left.length === names.length) return [row];
  if (refers.gone === "one") return left.length > 1 ? [{ ...row, [refers.field]: left }] : [];
  if (refers.gone !== "blank") return [];
  return [
    { ...row, ...Object.fromEntries([refers.field, ...refers.too].map((one) => [one, null])) },
  ];
}
