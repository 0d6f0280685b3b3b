const LADDER_MIN = [1, 2, 5, 10, 15, 30, 60, 120, 180, 360, 720];

/** Minutes between ticks so that they stand at least `minPx` apart. */
export function tickStep(pxPerMin: number, minPx: number): number {
  return LADDER_MIN.find((step) => step * pxPerMin >= minPx) ?? 720;
}

/** Ticks of a minute axis from 0 to `maxMin`. */
export function minuteTicks(maxMin: number, pxPerMin: number, minPx: number): number[] {
  const step = tickStep(pxPerMin, minPx);
  return Array.from({ length: Math.floor(maxMin / step) + 1 }, (_, place) => place * step);
}

/** Whole local hours of a window, as ms from trip start; `minuteOfHour` is the local minute at `startMs`. */
export function hourMarks(startMs: number, endMs: number, minuteOfHour: number): number[] {
  const marks: number[] = [];
  const first = startMs + ((60 - minuteOfHour) % 60) * 60_000;
  for (let ms = first; ms <= endMs; ms += 3_600_000) marks.push(ms);
  return marks;
}

/** The marks that stand at least `minPx` below the one before. */
export function spaced(
  marks: readonly number[],
  y: (ms: number) => number,
  minPx: number,
): number[] {
  return marks.reduce<number[]>((kept, ms) => {
    const before = kept.at(-1);
    return before === undefined || y(ms) - y(before) >= minPx ? [...kept, ms] : kept;
  }, []);
}
