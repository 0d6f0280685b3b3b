/** Two edits of one document brought together by the state that both began from. */

export interface Merged<T> {
  merged: T;
  /** Paths of the fields that both changed, each in another way. */
  clashes: string[];
}

export type Side = "mine" | "theirs";
type Fields = Readonly<Record<string, unknown>>;

/** Whether two values of a document are the same. */
export function isSame(one: unknown, other: unknown): boolean {
  if (Object.is(one, other)) return true;
  if (Array.isArray(one) || Array.isArray(other))
    return (
      Array.isArray(one) &&
      Array.isArray(other) &&
      one.length === other.length &&
      one.every((part, place) => isSame(part, other[place]))
    );
  if (!isFields(one) || !isFields(other)) return false;
  const names = new Set([...Object.keys(one), ...Object.keys(other)]);
  return [...names].every((name) => isSame(one[name], other[name]));
}

/** Edits of different fields together; where both changed the same field, the one of `prefer`. */
export function merge<T>(base: T, mine: T, theirs: T, prefer: Side = "mine"): Merged<T> {
  const clashes: string[] = [];
  const merged = new Merging(prefer, clashes).at(base, mine, theirs, "") as T;
  return { merged, clashes };
}

function isFields(value: unknown): value is Fields {
  return typeof value === "object" && value !== null && !Array.isArray(value);
}

/** By what a part of a list is known in all three states; null: by nothing. */
function keyOf(part: unknown): string | null {
  if (!isFields(part)) return null;
  const text = (name: string) => (typeof part[name] === "string" ? part[name] : null);
  const id = text("id");
  if (id !== null) return id;
  const [camera, item] = [text("camera"), text("item")];
  if (camera !== null) return item === null ? camera : `${camera} on ${item}`;
  return text("unit");
}

/** Parts of a list by their keys; null when they have none, or one stands twice. */
function keyed(list: readonly unknown[]): Map<string, unknown> | null {
  const found = new Map<string, unknown>();
  for (const part of list) {
    const key = keyOf(part);
    if (key === null || found.has(key)) return null;
    found.set(key, part);
  }
  return found;
}

class Merging {
  constructor(
    private readonly prefer: Side,
    private readonly clashes: string[],
  ) {}

  at(base: unknown, mine: unknown, theirs: unknown, path: string): unknown {
    if (isSame(mine, theirs) || isSame(base, theirs)) return mine;
    if (isSame(base, mine)) return theirs;
    if (isFields(mine) && isFields(theirs) && isFields(base) && sameKind(base, mine, theirs))
      return this.fields(base, mine, theirs, path);
    if (Array.isArray(mine) && Array.isArray(theirs) && Array.isArray(base)) {
      const lists = [keyed(base), keyed(mine), keyed(theirs)] as const;
      const [old, one, other] = lists;
      if (old !== null && one !== null && other !== null) return this.list(old, one, other, path);
    }
    return this.clash(mine, theirs, path);
  }

  private clash(mine: unknown, theirs: unknown, path: string): unknown {
    this.clashes.push(path === "" ? "the whole" : path);
    return this.prefer === "mine" ? mine : theirs;
  }

  private fields(base: Fields, mine: Fields, theirs: Fields, path: string): Fields {
    const names = new Set([...Object.keys(theirs), ...Object.keys(mine)]);
    return Object.fromEntries(
      [...names].map((name) => {
        const below = path === "" ? name : `${path}.${name}`;
        return [name, this.at(base[name], mine[name], theirs[name], below)];
      }),
    );
  }

  private list(
    base: Map<string, unknown>,
    mine: Map<string, unknown>,
    theirs: Map<string, unknown>,
    path: string,
  ): unknown[] {
    const kept = new Map<string, unknown>();
    for (const key of this.order([...base.keys()], [...mine.keys()], [...theirs.keys()], path)) {
      const [old, one, other] = [base.get(key), mine.get(key), theirs.get(key)];
      const part = this.at(old, one, other, path === "" ? key : `${path}.${key}`);
      if (part !== undefined) kept.set(key, part);
    }
    return [...kept.values()];
  }

  /** All keys, in the order of who moved them; what only the other has follows what it followed. */
  private order(base: string[], mine: string[], theirs: string[], path: string): string[] {
    const moved = (list: string[]) => {
      const stayed = base.filter((key) => list.includes(key));
      return !isSame(
        stayed,
        list.filter((key) => stayed.includes(key)),
      );
    };
    if (moved(mine) && moved(theirs)) this.clash(mine, theirs, `${path} (order)`);
    const mineFirst = moved(mine) && (!moved(theirs) || this.prefer === "mine");
    const [first, second] = mineFirst ? [mine, theirs] : [theirs, mine];
    const all = [...first];
    second.forEach((key, place) => {
      if (all.includes(key)) return;
      const before = second.slice(0, place).findLast((one) => all.includes(one));
      all.splice(before === undefined ? 0 : all.indexOf(before) + 1, 0, key);
    });
    return all;
  }
}

/** Whether three values are of one kind: a loop's fields do not belong to takes. */
function sameKind(...values: Fields[]): boolean {
  return values.every((one) => one["kind"] === values[0]?.["kind"]);
}
