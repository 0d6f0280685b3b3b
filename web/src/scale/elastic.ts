import type { LaidItem } from "../domain/types";

export type Fold = "day" | "stops";

export interface Band {
  id: string;
  name: string;
  kind: LaidItem["kind"];
  startMs: number;
  endMs: number;
  /** The whole of it, where the window cuts it off: what words tell. */
  wholeMs: { start: number; end: number };
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
  pxPerMin: number;
  y: (ms: number) => number;
  ms: (y: number) => number;
}

interface Window {
  startMs: number;
  endMs: number;
}

/** Pixels that the words of a leg or stop need. */
export type Needs = ReadonlyMap<string, number>;

/** A leg's minute, where nothing asks for another. */
export const PX_PER_MIN = 0.58;
/** From one line of the hands’ work to the next. */
export const WORK_LINE_PX = 17;
const SLOWEST = 0.42;
const FASTEST = 0.9;
const STEPS = 10;
const STOP_MOST = 110; // a night is squeezed, with a jag on the clock rail
const STOP_LEAST = 38;

const FOLDED_STOP = 24;
const FOLDED_LEG = 18;
const MIN_LEG = 38;

/** Time laid out downwards: legs share one scale, stops are as tall as the hands' work in them. */
export function elastic(
  items: readonly LaidItem[],
  window: Window,
  fold: Fold,
  needs: Needs,
  pxPerMin = PX_PER_MIN,
): Elastic {
  const bands: Band[] = [];
  let y = 0;
  for (const item of items) {
    const startMs = Math.max(item.start_ms, window.startMs);
    const endMs = Math.min(item.end_ms, window.endMs);
    if (endMs <= startMs) continue;
    const trueHeight = ((endMs - startMs) / 60_000) * pxPerMin;
    const height = Math.max(needs.get(item.id) ?? 0, leastHeight(item.kind, trueHeight, fold));
    bands.push({
      id: item.id,
      name: item.name,
      kind: item.kind,
      startMs,
      endMs,
      y0: y,
      y1: y + height,
      stretched: Math.abs(height - trueHeight) > 0.5,
      wholeMs: { start: item.start_ms, end: item.end_ms },
      cut: startMs !== item.start_ms || endMs !== item.end_ms,
    });
    y += height;
  }
  return { bands, height: y, pxPerMin, y: (ms) => yOf(bands, ms), ms: (at) => msOf(bands, at) };
}

/** The pace at which a window is as tall as the room there is, between the slowest and fastest. */
export function paceFor(
  items: readonly LaidItem[],
  window: Window,
  fold: Fold,
  needs: Needs,
  room: number,
): number {
  let [low, high] = [SLOWEST, FASTEST];
  for (let step = 0; step < STEPS; step += 1) {
    const middle = (low + high) / 2;
    if (elastic(items, window, fold, needs, middle).height > room) high = middle;
    else low = middle;
  }
  return low;
}

function leastHeight(kind: LaidItem["kind"], trueHeight: number, fold: Fold): number {
  if (fold === "stops") return kind === "stop" ? FOLDED_STOP : FOLDED_LEG;
  if (kind === "stop") return Math.max(Math.min(trueHeight, STOP_MOST), STOP_LEAST);
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
