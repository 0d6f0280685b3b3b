import { type Gap, gapsByItem, gapsIn } from "../domain/gaps";
import type { Rehearsal } from "../domain/types";
import type { Elastic } from "../scale/elastic";
import { stopWork, workHeight } from "./workLines";

export interface GapLine {
  gap: Gap;
  /** Upper edge of its words in the telling. */
  y: number;
}

/** Words of a gap: what happened, and under it the cure. */
export const GAP_WORDS_PX = 34;
const EDGE_PX = 3;

/** What goes wrong, each at its minute, within its own leg, none over another or over its work. */
export function gapLines(rehearsal: Rehearsal, scale: Elastic): GapLine[] {
  const gaps = gapsByItem(rehearsal);
  return scale.bands.flatMap((band) => {
    const here = gapsIn(gaps, band);
    if (here.length === 0) return [];
    const done = workHeight(stopWork(rehearsal.moves, band)); // stands above
    let free = band.y0 + Math.max(EDGE_PX, done);
    return here.map((gap, place) => {
      const after = (here.length - place) * GAP_WORDS_PX;
      const y = Math.max(free, Math.min(scale.y(gap.startMs), band.y1 - after));
      free = y + GAP_WORDS_PX;
      return { gap, y };
    });
  });
}
