import type { Move } from "../domain/types";
import { type Elastic, WORK_LINE_PX } from "../scale/elastic";
import { movesIn, workLines } from "./workLines";

export interface MovePlace {
  move: Move;
  number: number;
  y: number;
}

/** Where each movable piece of the hands' work of a camera is drawn, by its number in its stop. */
export function movePlaces(
  moves: readonly Move[],
  camera: string,
  scale: Elastic,
  oneColumn: boolean,
  can: (move: Move) => boolean,
): MovePlace[] {
  return scale.bands.flatMap((band) => {
    const here = movesIn(moves, band);
    if (!here.some((one) => one.camera === camera && can(one))) return [];
    const lines = workLines(here);
    const shown = oneColumn ? lines : lines.filter((line) => line.camera === camera);
    return here
      .filter((move) => move.camera === camera && can(move))
      .flatMap((move) => {
        const row = shown.findIndex((line) => line.camera === camera && line.moves.includes(move));
        const y = band.y0 + 4 + row * WORK_LINE_PX;
        if (row < 0 || y + 13 > band.y1 + 1) return [];
        return [{ move, number: shown[row]?.number ?? 0, y }];
      });
  });
}

/** The leg or stop of a list that is drawn nearest to a height. */
export function nearestBand<T extends { id: string }>(
  items: readonly T[],
  scale: Elastic,
  y: number,
): T | undefined {
  let best: { item: T; away: number } | undefined;
  for (const item of items) {
    const band = scale.bands.find((one) => one.id === item.id);
    if (band === undefined) continue;
    const away = y < band.y0 ? band.y0 - y : y > band.y1 ? y - band.y1 : 0;
    if (best === undefined || away < best.away) best = { item, away };
  }
  return best?.item;
}
