import type { Cell } from "./Drawing";

/** All cells of the rectangle between two cells, the first of them first. */
export function cellsBetween(
  rows: readonly string[],
  cameras: readonly string[],
  from: Cell,
  to: Cell,
): Cell[] {
  const span = (list: readonly string[], one: string, other: string) => {
    const [a, b] = [list.indexOf(one), list.indexOf(other)];
    return list.slice(Math.max(0, Math.min(a, b)), Math.max(a, b) + 1);
  };
  const columns = span(cameras, from.camera, to.camera);
  const cells = span(rows, from.item, to.item).flatMap((item) =>
    columns.map((camera) => ({ camera, item })),
  );
  return [from, ...cells.filter((one) => !sameCell(one, from))];
}

export function sameCell(one: Cell | null, other: Cell): boolean {
  return one?.camera === other.camera && one.item === other.item;
}

/** The cells with one put in, or taken out when it was among them. */
export function toggled(cells: readonly Cell[], cell: Cell): Cell[] {
  const without = cells.filter((one) => !sameCell(one, cell));
  return without.length < cells.length ? without : [...cells, cell];
}
