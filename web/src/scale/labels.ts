const CHARACTER_PX = 6.4;

/** As much of a line as the lane's gutter holds; all of it stands in the cell's own words. */
export function fitted(text: string, widthPx: number): string {
  const most = Math.max(6, Math.floor(widthPx / CHARACTER_PX));
  return text.length > most ? `${text.slice(0, most - 1).trimEnd()}…` : text;
}
