import type { QueryKey } from "@tanstack/react-query";
import { alone, installation, liveTabs, thisTab } from "./installation";

/** What a tab has edited and no save holds yet, with the state that it began from. */
export interface Note<Doc> {
  version: number;
  base: Doc;
  doc: Doc;
}

const START = "tumbrel.note";
const stem = (key: QueryKey) => `${START}.${installation()}.${key.join(".")}.`;

/** Keep this tab's note of a document in the browser; false when it has no room for it. */
export function writeNote<Doc>(key: QueryKey, note: Note<Doc>): boolean {
  try {
    localStorage.setItem(stem(key) + thisTab(), JSON.stringify(note));
    return true;
  } catch {
    return false;
  }
}

export function dropNote(key: QueryKey): void {
  localStorage.removeItem(stem(key) + thisTab());
}

/** Notes of a document that this tab left behind, and those of tabs that are gone; each once. */
export async function takeNotes<Doc>(key: QueryKey): Promise<Note<Doc>[]> {
  const live = await liveTabs();
  const found: Note<Doc>[] = [];
  await alone(`notes.${key.join(".")}`, () => {
    const names = Object.keys(localStorage).filter((name) => name.startsWith(stem(key)));
    for (const name of names.sort()) {
      const tab = name.slice(stem(key).length);
      if (tab !== thisTab() && live.has(tab)) continue;
      const note = parsed<Doc>(localStorage.getItem(name));
      localStorage.removeItem(name);
      if (note !== null) found.push(note);
    }
  });
  return found;
}

function parsed<Doc>(text: string | null): Note<Doc> | null {
  try {
    const note = JSON.parse(text ?? "") as Note<Doc> | null;
    return typeof note?.version === "number" && note.base && note.doc ? note : null;
  } catch {
    return null;
  }
}
