import { longestShown } from "../../domain/bench";
import type { BenchRun, BenchTold, NextRun, RunTold, RunningTest } from "../../domain/types";

export type Lane =
  | { kind: "run"; id: string; x: number; run: BenchRun; told: RunTold | undefined }
  | { kind: "test"; id: string; x: number; test: RunningTest; minutes: number }
  | { kind: "next"; id: "next"; x: number; next: NextRun };

export interface BenchLayout {
  lanes: Lane[];
  laneWidth: number;
  width: number;
  height: number;
  maxMin: number;
  pxPerMin: number;
  y: (minutes: number) => number;
}

export const TOP = 88;
export const RAIL = 52;
export const HANG_PX = 300;
const NO_END_MIN = 2880;
const CAPTION_PX = 44;
const LANE_PX = { least: 92, most: 148 };

/** Words in at most two lines of some letters. */
export function twoLines(words: string, letters: number): [string, string] {
  if (words.length <= letters) return [words, ""];
  const cut = words.lastIndexOf(" ", letters);
  const first = words.slice(0, cut > 0 ? cut : letters);
  const rest = words.slice(first.length).trim();
  return [first, rest.length > letters ? `${rest.slice(0, letters - 1)}…` : rest];
}

/** Where lanes stand; the longest run (up to four hours) fills the height. */
export function benchLayout(
  runs: readonly BenchRun[],
  told: BenchTold | null,
  tests: readonly { test: RunningTest; minutes: number }[],
  width: number,
): BenchLayout {
  const next = told?.next ?? null;
  const count = runs.length + tests.length + (next === null ? 0 : 1);
  const laneWidth = Math.min(
    LANE_PX.most,
    Math.max(LANE_PX.least, (width - RAIL) / Math.max(1, count)),
  );
  const at = (place: number) => RAIL + (place + 0.5) * laneWidth;
  const lanes: Lane[] = runs.map((run, place) => ({
    kind: "run",
    id: run.id,
    x: at(place),
    run,
    told: told?.runs.find((one) => one.run === run.id),
  }));
  for (const { test, minutes } of tests)
    lanes.push({ kind: "test", id: test.id, x: at(lanes.length), test, minutes });
  if (next !== null) lanes.push({ kind: "next", id: "next", x: at(lanes.length), next });
  const maxMin = longestShown(
    lanes.flatMap((lane) => {
      if (lane.kind === "test") return [lane.minutes];
      if (lane.kind === "next") return [lane.next.minutes];
      const likely = lane.told?.likely_min ?? 0;
      return [lane.run.minutes, likely < NO_END_MIN ? likely : 0, lane.told?.box_min];
    }),
  );
  const pxPerMin = HANG_PX / maxMin;
  return {
    lanes,
    laneWidth,
    width: RAIL + count * laneWidth,
    height: TOP + HANG_PX + CAPTION_PX,
    maxMin,
    pxPerMin,
    y: (minutes) => TOP + Math.min(minutes, maxMin) * pxPerMin,
  };
}
