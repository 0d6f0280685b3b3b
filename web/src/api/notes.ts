import type { QueryKey } from "@tanstack/react-query";
import { bringUp } from "./queries";
import { SCHEMA } from "./schema-number";
import { alone, installation, liveTabs, thisTab } from "./installation";

/** What a tab has edited and no save holds yet, with the state that it began from. */
export interface Note<Doc> {
  version: number;
  base: Doc;
  doc: Doc;
}

/** A note that this tab took over; it lies under its name until the tab takes it up. */
export interface Taken<Doc> extends Note<Doc> {
  name: string;
}

type Raw = Record<string, unknown>;

const START = "tumbrel.note";
const TAKEN = "+";
const stem = (key: QueryKey) => `${START}.${installation()}.${key.join(".")}.`;

/** A note as the browser holds it, with the number of the schema that it was written in. */
interface Stored<Doc> extends Note<Doc> {
  schema?: number;
}

/** Notes of the first schema did not say its number. */
const UNNUMBERED = 1;

/** Keep this tab's note of a document in the browser; false when it has no room for it. */
export function writeNote<Doc>(key: QueryKey, note: Note<Doc>): boolean {
  return put(stem(key) + thisTab(), note);
}

function put<Doc>(name: string, { version, base, doc }: Note<Doc>): boolean {
  try {
    localStorage.setItem(name, JSON.stringify({ version, base, doc, schema: SCHEMA }));
    return true;
  } catch {
    return false;
  }
}

export function dropNote(key: QueryKey): void {
  localStorage.removeItem(stem(key) + thisTab());
}

/** Notes of a document that this tab left behind, and those of tabs that are gone; each once. */
export async function takeNotes<Doc>(key: QueryKey): Promise<Taken<Doc>[]> {
  const live = await liveTabs();
  const found: Taken<Doc>[] = [];
  await alone(`notes.${key.join(".")}`, async () => {
    const names = Object.keys(localStorage).filter((name) => name.startsWith(stem(key)));
    for (const name of names.sort()) {
      const [tab = ""] = name.slice(stem(key).length).split(TAKEN);
      if (tab !== thisTab() && live.has(tab)) continue;
      const note = parsed<Doc>(localStorage.getItem(name));
      const taken = note === null ? null : await broughtUp(key, note).catch(() => "later" as const);
      if (taken === "later") continue; // it stays until the server can be asked
      localStorage.removeItem(name);
      if (taken !== null) found.push({ ...taken, name: lay(key, taken) });
    }
  });
  return found;
}

/** Put down a note that was taken over, beside this tab's own; gives back its name. */
function lay<Doc>(key: QueryKey, note: Note<Doc>): string {
  const name = `${stem(key)}${thisTab()}${TAKEN}${crypto.randomUUID()}`;
  put(name, note);
  return name;
}

export function dropTaken({ name }: Taken<unknown>): void {
  localStorage.removeItem(name);
}

/** A note as the present schema has it: the server knows how. */
async function broughtUp<Doc>(key: QueryKey, note: Stored<Doc>): Promise<Note<Doc>> {
  const { schema = UNNUMBERED, version, base, doc } = note;
  if (schema === SCHEMA) return { version, base, doc };
  const kind = key[0] === "kit" ? "kit" : "trip";
  const bare = [base, doc].map((one) => (kind === "kit" ? (one as { kit: Raw }).kit : one) as Raw);
  const told = await bringUp({ kind, tumbrel: schema, documents: bare });
  const [newBase, newDoc] = [base, doc].map((one, place) => {
    const raw = told.documents[place];
    return (kind === "kit" ? { ...one, kit: raw } : raw) as Doc;
  });
  return { version, base: newBase ?? base, doc: newDoc ?? doc };
}

function parsed<Doc>(text: string | null): Stored<Doc> | null {
  try {
    const note = JSON.parse(text ?? "") as Stored<Doc> | null;
    return typeof note?.version === "number" && note.base && note.doc ? note : null;
  } catch {
    return null;
  }
}
