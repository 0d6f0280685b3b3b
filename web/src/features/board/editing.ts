import type { Cell } from "../../board/Drawing";
import {
  assignmentAt,
  freshAssignment,
  withAssignment,
  withoutAssignment,
} from "../../domain/edits";
import { asOffered, PATTERNS, patternOf } from "../../domain/patterns";
import type { Assignment, Camera, Kit, Pattern, Plan } from "../../domain/types";

export type How = "off" | Pattern["kind"];

/** Several cells of the board as one thing to edit; the first that is asked speaks for all. */
export interface Chosen {
  cells: readonly Cell[];
  lead: Camera;
  asked: Assignment | undefined;
  /** The one camera they are all of; null when they are of several. */
  camera: Camera | null;
}

export function chosenOf(kit: Kit, plan: Plan, cells: readonly Cell[]): Chosen | null {
  const lead = cells.find((one) => assignmentAt(plan, one.camera, one.item)) ?? cells[0];
  const camera = kit.cameras.find((one) => one.id === lead?.camera);
  if (lead === undefined || camera === undefined) return null;
  const alone = cells.every((one) => one.camera === camera.id);
  return {
    cells,
    lead: camera,
    asked: assignmentAt(plan, lead.camera, lead.item),
    camera: alone ? camera : null,
  };
}

/** The plan with a part of what is asked changed on all cells; cells not asked yet begin with it. */
export function withPart(
  kit: Kit,
  plan: Plan,
  cells: readonly Cell[],
  part: Partial<Assignment>,
): Plan {
  return cells.reduce((before, { camera, item }) => {
    const found = kit.cameras.find((one) => one.id === camera);
    if (found === undefined) return before;
    const now = assignmentAt(before, camera, item) ?? freshAssignment(before, found, item);
    return withAssignment(before, { ...now, ...part });
  }, plan);
}

/** By the clock as it begins on a leg: from its start to its end. */
export type Hours = (item: string) => Pattern | null;

/** The plan with all cells recorded by a pattern, or off. */
export function withHow(
  kit: Kit,
  plan: Plan,
  cells: readonly Cell[],
  how: How,
  hours: Hours,
): Plan {
  return cells.reduce((before, cell) => {
    if (how === "off") return withoutAssignment(before, cell.camera, cell.item);
    const now = assignmentAt(before, cell.camera, cell.item);
    const loops = kit.cameras.find((one) => one.id === cell.camera)?.loops ?? [];
    const begins = how === "windows" && now?.pattern.kind !== how ? hours(cell.item) : null;
    const pattern = begins ?? asOffered(patternOf(how, now), loops);
    return withPart(kit, before, [cell], { pattern });
  }, plan);
}

/** The plans that the editor's buttons would make, by button. */
export function alternativesOf(
  kit: Kit,
  plan: Plan,
  chosen: Chosen,
  hours: Hours,
): Map<string, Plan> {
  const { cells, asked, camera } = chosen;
  const made = new Map<string, Plan>();
  if (asked !== undefined && camera !== null)
    for (const mode of camera.modes)
      if (mode.id !== asked.mode)
        made.set(`mode:${mode.id}`, withPart(kit, plan, cells, { mode: mode.id }));
  for (const how of PATTERNS)
    if (asked?.pattern.kind !== how) made.set(how, withHow(kit, plan, cells, how, hours));
  if (asked !== undefined) made.set("off", withHow(kit, plan, cells, "off", hours));
  return made;
}
