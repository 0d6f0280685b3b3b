import type { Kit, Trip } from "./types";

const MOST_NAMED = 3;

/** Names of what paths of a document name by their keys. */
export function namesOf(kit: Kit, trip: Trip): ReadonlyMap<string, string> {
  const parts = [...kit.cameras, ...kit.batteries, ...kit.cards, ...kit.sources, ...trip.items];
  return new Map(parts.map((one) => [one.id, one.name]));
}

/** What two edits both changed, in words: "mode of Chin on long flight", "order of items". */
export function clashesText(
  paths: readonly string[],
  names: ReadonlyMap<string, string> = new Map(),
): string {
  const words = (part: string) =>
    part
      .split(" on ")
      .map((key) => names.get(key) ?? key.replaceAll("_", " "))
      .join(" on ");
  const named = paths.slice(0, MOST_NAMED).map((path) => {
    const parts = path.split(".").filter((part) => part !== "trip" && part !== "plan");
    const owner = parts.at(-2);
    const last = words(parts.at(-1) ?? path);
    return owner === undefined ? last : `${last} of ${words(owner)}`;
  });
  const more = paths.length - named.length;
  return [...named, ...(more > 0 ? [`${String(more)} more`] : [])].join(", ");
}
