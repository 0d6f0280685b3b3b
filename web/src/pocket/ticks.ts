/** Ticks on a card: rows that are only added to; what holds now follows from all of them. */

export type TickKind = "done" | "left_out" | "undone" | "note" | "reading";

export interface Tick {
  id: string;
  move: string;
  kind: TickKind;
  at: string;
  text: string;
}

/** Where ticks are kept: they are there at once, and go farther when that can be. */
export interface TickStore {
  all: () => readonly Tick[];
  add: (tick: Tick) => void;
  /** What keeping them is like here, where that is to be said. */
  said: () => string;
}

export function tickOf(kind: TickKind, move: string, text = ""): Tick {
  const at = new Date();
  const random = [...crypto.getRandomValues(new Uint8Array(8))];
  const id = random.map((one) => one.toString(16).padStart(2, "0")).join("");
  return { id: `${at.getTime().toString(36)}-${id}`, move, kind, at: at.toISOString(), text };
}

/** What was last said of each move: done, left out, or neither any more. */
export function stateOf(ticks: readonly Tick[]): Map<string, "done" | "left_out"> {
  const states = new Map<string, "done" | "left_out">();
  for (const tick of inOrder(ticks)) {
    if (tick.kind === "done" || tick.kind === "left_out") states.set(tick.move, tick.kind);
    else if (tick.kind === "undone") states.delete(tick.move);
  }
  return states;
}

/** The last tick that can be taken back: done or left out, and still so. */
export function lastTicked(ticks: readonly Tick[]): Tick | null {
  const states = stateOf(ticks);
  return (
    inOrder(ticks).findLast(
      (one) => (one.kind === "done" || one.kind === "left_out") && states.has(one.move),
    ) ?? null
  );
}

/** Both together, each once. */
export function joined(one: readonly Tick[], other: readonly Tick[]): Tick[] {
  return inOrder([...new Map([...one, ...other].map((tick) => [tick.id, tick])).values()]);
}

function inOrder(ticks: readonly Tick[]): Tick[] {
  return [...ticks].sort((a, b) => (a.at < b.at ? -1 : a.at > b.at ? 1 : 0));
}

const KINDS = new Set<string>(["done", "left_out", "undone", "note", "reading"]);

/** Ticks from a file or pasted text; null when it holds none. */
export function readTicks(text: string): Tick[] | null {
  let found: unknown;
  try {
    found = JSON.parse(text);
  } catch {
    return null;
  }
  const rows: unknown =
    typeof found === "object" && found !== null && "ticks" in found ? found.ticks : found;
  if (!Array.isArray(rows)) return null;
  const ticks = rows.filter(isTick);
  return ticks.length === rows.length && ticks.length > 0 ? ticks : null;
}

function isTick(row: unknown): row is Tick {
  if (typeof row !== "object" || row === null) return false;
  const { id, move, kind, at, text } = row as Record<string, unknown>;
  const words = [id, move, kind, at, text].every((one) => typeof one === "string");
  return words && KINDS.has(kind as string) && !Number.isNaN(Date.parse(at as string));
}

/** Ticks kept in the browser's own storage where it allows that. */
export function localStore(key: string): TickStore {
  let ticks: readonly Tick[] = [];
  let kept = true;
  try {
    ticks = readTicks(localStorage.getItem(key) ?? "[]") ?? [];
  } catch {
    kept = false;
  }
  return {
    all: () => ticks,
    add: (tick) => {
      ticks = joined(ticks, [tick]);
      try {
        localStorage.setItem(key, JSON.stringify(ticks));
      } catch {
        kept = false;
      }
    },
    said: () =>
      kept
        ? "Ticks are kept on this phone, in this browser."
        : "This browser keeps nothing: save the ticks to a file before you close the page.",
  };
}
