import type { Move } from "../domain/types";
import type { Elastic } from "../scale/elastic";
import { lineTop, stopWork } from "./workLines";

export interface MovePlace {
  move: Move;
  number: number;
  y: number;
}

/** Where each movable piece of the hands' work of a camera is told, by its number in its stop. */
export function movePlaces(
  moves: readonly Move[],
  camera: string,
  scale: Elastic,
  can: (move: Move) => boolean,
): MovePlace[] {
  return scale.bands.flatMap((band) => {
    const work = stopWork(moves, band);
    return work.lines.flatMap((line, row) =>
      line.moves
        .filter((move) => move.camera === camera && can(move))
        .map((move) => ({ move, number: line.number, y: band.y0 + lineTop(work, row) })),
    );
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
