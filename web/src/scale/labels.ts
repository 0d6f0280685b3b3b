export interface Wanted {
  top: number;
  /** Where the label must end, as the work of the next stop begins there. */
  bottom: number;
  /** Lines wished for, the first being the one that must stand. */
  lines: number;
}

export interface Placed {
  y: number;
  lines: number;
}

export const LINE_PX = 15;

/** Labels down a gutter: none covers another; where room is short the later lines go first. */
export function placeLabels(wanted: readonly Wanted[]): Placed[] {
  let free = -Infinity;
  return wanted.map(({ top, bottom, lines }, place) => {
    const y = Math.max(free, Math.min(top, bottom - lines * LINE_PX));
    const end = Math.min(bottom, wanted[place + 1]?.top ?? Infinity);
    const fit = Math.max(1, Math.min(lines, Math.floor((end - y) / LINE_PX)));
    free = y + fit * LINE_PX;
    return { y, lines: fit };
  });
}

const CHARACTER_PX = 6.4;

/** As much of a line as the lane's gutter holds; all of it stands in the cell's own words. */
export function fitted(text: string, widthPx: number): string {
  const most = Math.max(6, Math.floor(widthPx / CHARACTER_PX));
  return text.length > most ? `${text.slice(0, most - 1).trimEnd()}…` : text;
}
