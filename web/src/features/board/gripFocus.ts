import type { Cell } from "../../board/Drawing";

/** The cell that the keyboard is on, ahead of the drawing; else the one that is chosen. */
export function cellHere(chosen: Cell | null): Cell | null {
  const active = document.activeElement;
  const name = active instanceof HTMLElement ? active.dataset["cell"] : undefined;
  const [item, camera] = name?.split("/") ?? [];
  return item === undefined || camera === undefined ? chosen : { item, camera };
}

function focusGrip(mark: string): void {
  document.querySelector<HTMLElement>(`[data-grip="${mark}"]`)?.focus();
}

/** The first piece of the hands' work here that can be moved. */
export function focusMove(chosen: Cell | null): void {
  const here = cellHere(chosen);
  if (here) focusGrip(`move/${here.item}/${here.camera}`);
}

/** The lower edge of the leg or stop here on the clock rail. */
export function focusTime(chosen: Cell | null): void {
  const here = cellHere(chosen);
  if (here) focusGrip(`time/${here.item}`);
}

/** The nearest end of a stretch of the camera here: its own, when the cell is within one. */
export function focusEnd(chosen: Cell | null, end: "first" | "last"): void {
  const here = cellHere(chosen);
  if (here === null) return;
  const edge = end === "first" ? "top" : "bottom";
  const cell = document.querySelector(`[data-cell="${here.item}/${here.camera}"]`);
  const y = cell?.getBoundingClientRect()[edge] ?? 0;
  const away = (one: HTMLElement) => Math.abs(one.getBoundingClientRect()[edge] - y);
  const ends = [...document.querySelectorAll<HTMLElement>(`[data-grip^="${end}/"]`)];
  ends
    .filter((one) => one.dataset["grip"]?.split("/")[2] === here.camera)
    .sort((a, b) => away(a) - away(b))[0]
    ?.focus();
}
