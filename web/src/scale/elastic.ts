import type { LaidItem } from "../domain/types";

export type Fold = "day" | "stops";

export interface Band {
  id: string;
  name: string;
  kind: LaidItem["kind"];
  startMs: number;
  endMs: number;
  y0: number;
  y1: number;
  /** Not drawn as tall as its time is long. */
  stretched: boolean;
  /** Cut off above or below by the window. */
  cut: boolean;
}

export interface Elastic {
  bands: Band[];
  height: number;
  y: (ms: number) => number;
  ms: (y: number) => number;
}

export const PX_PER_MIN = 0.58;
const STOP_BASE = 22;
const STOP_MOST = 150; // a night is squeezed, with a jag on the clock rail
/** From one line of the hands' work to the next. */
export const WORK_LINE_PX = 17;
const STOPS_FOLD = { stop: 24, leg: 18 };
const MIN_LEG = 16;

/** Time laid out downwards: legs share one scale, stops are as tall as the hands' work in them. */
export function elastic(
  items: readonly LaidItem[],
  window: { startMs: number; endMs: number },
  fold: Fold,
  lines: ReadonlyMap<string, number>,
): Elastic {
  const bands: Band[] = [];
  let y = 0;
  for (const item of items) {
    const startMs = Math.max(item.start_ms, window.startMs);
    const endMs = Math.min(item.end_ms, window.endMs);
    if (endMs <= startMs) continue;
    const trueHeight = ((endMs - startMs) / 60_000) * PX_PER_MIN;
    const height = bandHeight(item.kind, trueHeight, fold, lines.get(item.id) ?? 0);
    bands.push({
      id: item.id,
      name: item.name,
      kind: item.kind,
      startMs,
      endMs,
      y0: y,
      y1: y + height,
      stretched: Math.abs(height - trueHeight) > 0.5,
      cut: startMs !== item.start_ms || endMs !== item.end_ms,
    });
    y += height;
  }
  return { bands, height: y, y: (ms) => yOf(bands, ms), ms: (at) => msOf(bands, at) };
}

function bandHeight(kind: LaidItem["kind"], trueHeight: number, fold: Fold, lines: number): number {
  if (fold === "stops")
    return kind === "stop" ? Math.max(STOPS_FOLD.stop, 6 + WORK_LINE_PX * lines) : STOPS_FOLD.leg;
  if (kind === "stop")
    return Math.max(Math.min(trueHeight, STOP_MOST), STOP_BASE + WORK_LINE_PX * Math.max(1, lines));
  return Math.max(trueHeight, MIN_LEG);
}

function yOf(bands: readonly Band[], ms: number): number {
  const band = bands.find((one) => ms < one.endMs) ?? bands.at(-1);
  if (band === undefined) return 0;
  const way = (ms - band.startMs) / (band.endMs - band.startMs);
  return band.y0 + (band.y1 - band.y0) * Math.min(1, Math.max(0, way));
}

function msOf(bands: readonly Band[], y: number): number {
  const band = bands.find((one) => y < one.y1) ?? bands.at(-1);
  if (band === undefined) return 0;
  const way = (y - band.y0) / (band.y1 - band.y0);
  return Math.round(band.startMs + (band.endMs - band.startMs) * Math.min(1, Math.max(0, way)));
}
