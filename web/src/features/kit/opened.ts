import type { Kit } from "../../domain/types";

/** What is opened on the shelf, beside its own drawing. */
export type Opened =
  | { kind: "mode"; id: string; camera: string }
  | {
      kind: "camera" | "battery" | "family" | "card" | "pocket" | "charger" | "source";
      id: string;
    }
  | { kind: "load" | "gear" | "drive"; id: string }
  | { kind: "new" | "serving"; id: "" };

/** The mark by which the drawing of a thing is found. */
export function markOf(opened: Opened): string {
  return opened.kind === "mode"
    ? `mode/${opened.camera}/${opened.id}`
    : `${opened.kind}/${opened.id}`;
}

const LISTS = {
  batteries: "battery",
  families: "family",
  cards: "card",
  pockets: "pocket",
  chargers: "charger",
  sources: "source",
  loads: "load",
  gear: "gear",
  drives: "drive",
} as const;

/** What must be open for a field of the document to be seen: "kit.batteries[4].pocket". */
export function openedAt(kit: Kit, path: string): Opened | null {
  const found = /^kit\.(\w+)\[(\d+)\](?:\.modes\[(\d+)\])?/.exec(path);
  if (found === null) return path.startsWith("kit.serving") ? { kind: "serving", id: "" } : null;
  const [, list = "", place = "", mode] = found;
  if (list === "cameras") {
    const camera = kit.cameras[Number(place)];
    if (camera === undefined) return null;
    const named = mode === undefined ? undefined : camera.modes[Number(mode)];
    return named
      ? { kind: "mode", camera: camera.id, id: named.id }
      : { kind: "camera", id: camera.id };
  }
  if (!(list in LISTS)) return null;
  const kind = LISTS[list as keyof typeof LISTS];
  const unit = kit[list as keyof typeof LISTS][Number(place)];
  return unit === undefined ? null : { kind, id: unit.id };
}

/** The drawing that a mark is of, in a page. */
export function drawn(page: ParentNode | null | undefined, mark: string): HTMLElement | undefined {
  const all = [...(page?.querySelectorAll<HTMLElement>("[data-unit]") ?? [])];
  return all.find((one) => one.dataset["unit"] === mark);
}
