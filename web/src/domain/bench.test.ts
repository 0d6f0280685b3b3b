import { describe, expect, it } from "vitest";
import { BENCH_RUN as RUN } from "../testing/benchSamples";
import { DOCUMENT } from "../testing/samples";
import {
  changedRun,
  changedTest,
  clockText,
  conditionLines,
  curveEnd,
  endedRun,
  expectedWords,
  faultOf,
  isPaused,
  localTime,
  longestShown,
  nextId,
  nextSentence,
  onBench,
  runSentence,
  testMinutes,
  withEnded,
  withoutRun,
  withoutTest,
  withPause,
  withTest,
} from "./bench";
import type { Camera, ModeLook, Notebook, RunningTest, RunTold } from "./types";

const START = Date.parse("2027-06-01T12:00:00Z");
const MINUTE = 60_000;
const at = (minutes: number) => new Date(START + minutes * MINUTE).toISOString();
const TEST: RunningTest = {
  id: "chin-1",
  camera: "chin",
  set_up: "bare",
  mode: "m",
  features: ["screen"],
  ambient_c: 21,
  air_mps: 0,
  plugged: false,
  charge_start: 1,
  firmware: "2.4",
  started_at: at(0),
  warned_at: null,
  pauses: [],
  device: "by_hand",
  speed: 1,
};
const EMPTY: Notebook = { runs: [], running: [], taken: [] };
const [CHIN] = DOCUMENT.kit.cameras as [Camera];

describe("the notebook", () => {
  it("gives the next free name of a camera, whatever runs or ran", () => {
    const notebook = { ...EMPTY, runs: [{ ...RUN, id: "chin-2" }], running: [TEST] };
    expect(nextId(notebook, "chin")).toBe("chin-3");
    expect(nextId(notebook, "boom")).toBe("boom-1");
    expect(nextId(EMPTY, "c".repeat(40)).length).toBeLessThanOrEqual(40);
  });
  it("changes and drops one run and leaves the others", () => {
    const notebook = { ...EMPTY, runs: [RUN, { ...RUN, id: "other" }] };
    const changed = changedRun(notebook, RUN.id, (run) => ({ ...run, minutes: 9 }));
    expect(changed.runs.map((run) => run.minutes)).toEqual([9, RUN.minutes]);
    expect(withoutRun(notebook, RUN.id).runs.map((run) => run.id)).toEqual(["other"]);
  });
  it("puts a test in, changes it, and throws it away", () => {
    const running = withTest(EMPTY, TEST);
    const warned = changedTest(running, TEST.id, (test) => ({ ...test, warned_at: at(5) }));
    expect(warned.running[0]?.warned_at).toBe(at(5));
    expect(withoutTest(warned, TEST.id)).toEqual(EMPTY);
  });
  it("gives a camera its own runs and what was taken of it", () => {
    const notebook = { ...EMPTY, runs: [RUN, { ...RUN, id: "x", camera: "gone" }] };
    expect(onBench(DOCUMENT.kit, notebook, "chin")?.runs).toEqual([RUN]);
    expect(onBench(DOCUMENT.kit, notebook, "gone")).toBeNull();
  });
});

describe("a test by the clock", () => {
  it("counts from its start, whatever slept in between, and never backwards", () => {
    expect(testMinutes(TEST, START + 90 * MINUTE)).toBe(90);
    expect(testMinutes(TEST, START - MINUTE)).toBe(0);
    expect(testMinutes({ ...TEST, speed: 60 }, START + 30_000)).toBe(30);
  });
  it.each([
    [0, "0:00:00"],
    [41.0834, "0:41:05"],
    [125.5, "2:05:30"],
  ])("shows %s minutes as %s", (minutes, text) => {
    expect(clockText(minutes)).toBe(text);
  });
  it("ends as a run with its warning and its reason", () => {
    const run = endedRun({ ...TEST, warned_at: at(18) }, START + 28.04 * MINUTE, "hot");
    expect(run).toMatchObject({
      id: "chin-1",
      minutes: 28,
      end: "hot",
      warned_min: 18,
      charge_end: null,
      features: ["screen"],
      firmware: "2.4",
    });
    expect(run.at).toBe(localTime(START));
    expect(endedRun(TEST, START + 10 * MINUTE, "empty").charge_end).toBe(0);
  });
  it("adds up pauses of charging, one that still lasts too", () => {
    const once = withPause(withPause(TEST, at(10)), at(15));
    expect(isPaused(once)).toBe(false);
    const again = withPause(once, at(20));
    expect(isPaused(again)).toBe(true);
    expect(endedRun(again, START + 27 * MINUTE, "stopped").charge_paused_min).toBe(12);
  });
  it("keeps even the shortest test within what a run may be", () => {
    const run = endedRun({ ...TEST, warned_at: at(0) }, START + 50, "stopped");
    expect([run.minutes, run.warned_min]).toEqual([0.1, 0.1]);
    expect(endedRun(TEST, START + 9000 * MINUTE, "stopped").minutes).toBe(2880);
    expect(faultOf(run)).toBeNull();
  });
  it("leaves the running ones when it is kept", () => {
    const run = endedRun(TEST, START + MINUTE, "hot");
    expect(withEnded(withTest(EMPTY, TEST), TEST, run)).toEqual({ ...EMPTY, runs: [run] });
  });
});

describe("what cannot be kept", () => {
  it.each([
    [{ plugged: true, end: "empty" as const }, "On outside power"],
    [{ minutes: 10, warned_min: 11 }, "The warning comes after"],
    [{ minutes: 10, warned_min: null, charge_paused_min: 11 }, "Charging paused for longer"],
    [{ charge_start: 0.5, charge_end: 0.6, end: "hot" as const }, "The charge at the end"],
  ])("%o is told", (part, words) => {
    expect(faultOf({ ...RUN, ...part })).toContain(words);
  });
});

describe("words", () => {
  const told: RunTold = {
    run: RUN.id,
    counts: true,
    low_min: 24.6,
    likely_min: 28,
    high_min: 33,
    end: "hot",
    box_min: 95,
    outlier: false,
    wide: false,
    words: "As expected.",
  };
  it("a run is one sentence", () => {
    expect(runSentence(RUN, told, CHIN)).toBe(
      "4K 30, 21° still: hot after 28 min; expected 25 to 33 min. As expected.",
    );
    expect(runSentence({ ...RUN, end: "stopped" }, undefined, CHIN)).toBe(
      "4K 30, 21° still: not hot by 28 min.",
    );
  });
  it("conditions name what is not usual", () => {
    const cased = { ...CHIN.set_ups[0], id: "cased", name: "in its case" } as Camera["set_ups"][0];
    const camera = { ...CHIN, set_ups: [...CHIN.set_ups, cased] };
    const tried = { ...RUN, set_up: "cased", plugged: true, charge_start: 0.3, air_mps: 3 };
    expect(conditionLines(tried, camera)).toEqual([
      "21° 3 m/s",
      "in its case, plugged in, from 30 %",
    ]);
  });
  it("the run worth doing says how", () => {
    const next = { ...RUN, item: null, mode_wanted: "m", doubt_before: 0.2, doubt_after: 0.1 };
    expect(nextSentence({ ...next, air_mps: 1.5 }, CHIN)).toBe(
      "Start this run, it would teach most: 4K 30, 21° light fan",
    );
  });
  it("a curve says where it ends", () => {
    const curve = { kind: "asked", name: "", minutes: [], likely_c: [], low_c: [], high_c: [] };
    const end = (hot_min: number | null, empty_min: number | null) =>
      curveEnd({ ...curve, kind: "asked", hot_min, empty_min });
    expect([end(28, null), end(null, 61), end(null, null)]).toEqual([
      "hot 28 min",
      "empty 1 h 01",
      "on and on",
    ]);
  });
  it("what is expected of a test has a range, or no end", () => {
    const look = { mode: "m", end: "hot", low_min: 13, likely_min: 15, high_min: 17 };
    const words = (part: Partial<ModeLook>) =>
      expectedWords({ ...look, ...part } as unknown as ModeLook);
    expect(words({})).toBe("Expected: hot after 13 to 17 min.");
    expect(words({ high_min: 2880 })).toBe("Expected: hot after 13 min or more.");
    expect(words({ likely_min: 2880, high_min: 2880 })).toBe(
      "Likely nothing ends it; hot after 13 min at the earliest.",
    );
    expect(words({ low_min: 2880, likely_min: 2880 })).toBe("Nothing is expected to end it.");
  });
  it("pictures reach to the longest of what they show, to four hours", () => {
    expect(longestShown([null, undefined, Infinity])).toBeCloseTo(46.8);
    expect(longestShown([100, 20])).toBeCloseTo(104);
    expect(longestShown([2880])).toBe(240);
  });
});
