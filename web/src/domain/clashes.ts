const MOST_NAMED = 3;

/** What two edits both changed, in words: "name of way", "order of items". */
export function clashesText(paths: readonly string[]): string {
  const named = paths.slice(0, MOST_NAMED).map((path) => {
    const parts = path.split(".").filter((part) => part !== "trip" && part !== "plan");
    const last = (parts.at(-1) ?? path).replaceAll("_", " ");
    const owner = parts.at(-2);
    return owner === undefined ? last : `${last} of ${owner.replaceAll("_", " ")}`;
  });
  const more = paths.length - named.length;
  return [...named, ...(more > 0 ? [`${String(more)} more`] : [])].join(", ");
}
