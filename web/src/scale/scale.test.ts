import { describe, expect, it } from "vitest";
import { cameraResult, COURSE, laid, loss, REHEARSAL } from "../testing/samples";
import { LAPEL } from "../testing/beside";
import { gapLines } from "../board/gapLines";
import { wordHeights } from "../board/workLines";
import { elastic, paceFor, PX_PER_MIN } from "./elastic";
import { lanesOf, stripLeft } from "./lanes";
import { areaPath, columnPoints, linePath, runsOf, thin } from "./rope";
import { hourMarks, minuteTicks, spaced, tickStep } from "./ticks";

const MIN = 60_000;
const NIGHT_PX = 110;
const ITEMS = [
  laid("camp", "stop", 0, 20),
  laid("climb", "leg", 20, 220),
  laid("hut", "stop", 220, 1000),
  laid("ridge", "leg", 1000, 1005),
];
const WHOLE = { startMs: 0, endMs: 1005 * MIN };

describe("elastic time", () => {
  const scale = elastic(ITEMS, WHOLE, "day", new Map([["camp", 73]]));
  const height = (id: string) => {
    const band = scale.bands.find((one) => one.id === id);
    return band ? band.y1 - band.y0 : 0;
  };
  it("legs share one scale", () => {
    expect(height("climb")).toBeCloseTo(200 * PX_PER_MIN);
  });
  it("a stop is as tall as its words need", () => {
    expect(height("camp")).toBe(73);
  });
  it("a night is squeezed, and says that it is not true to the clock", () => {
    expect(height("hut")).toBe(NIGHT_PX);
    expect(scale.bands.find((one) => one.id === "hut")?.stretched).toBe(true);
    expect(scale.bands.find((one) => one.id === "climb")?.stretched).toBe(false);
  });
  it("a short leg can still be hit", () => {
    expect(height("ridge")).toBe(38);
  });
  it("bands stand without gaps and time goes through them and back", () => {
    for (const [place, band] of scale.bands.entries())
      expect(band.y0).toBeCloseTo(scale.bands[place - 1]?.y1 ?? 0);
    for (const minute of [0, 10, 20, 100, 219, 500, 999, 1004])
      expect(scale.ms(scale.y(minute * MIN)) / MIN).toBeCloseTo(minute, 3);
    expect(scale.y(1005 * MIN)).toBeCloseTo(scale.height);
  });
  it("a window cuts what hangs over it", () => {
    const cut = elastic(ITEMS, { startMs: 100 * MIN, endMs: 300 * MIN }, "day", new Map());
    expect(cut.bands.map((band) => [band.id, band.cut])).toEqual([
      ["climb", true],
      ["hut", true],
    ]);
    const whole = ({ id }: { id: string }) => ITEMS.find((one) => one.id === id);
    for (const band of cut.bands)
      expect(band.wholeMs).toEqual({ start: whole(band)?.start_ms, end: whole(band)?.end_ms });
    expect(cut.ms(-50)).toBe(100 * MIN);
    expect(cut.ms(9999)).toBe(300 * MIN);
  });
  it("folded to stops, legs are thin and stops keep room for their work", () => {
    const folded = elastic(ITEMS, WHOLE, "stops", new Map([["camp", 40]]));
    expect(folded.bands.map((band) => band.y1 - band.y0)).toEqual([40, 18, 24, 18]);
  });
  it("a window is as tall as the room, as far as its legs allow", () => {
    const tall = (room: number) =>
      elastic(ITEMS, WHOLE, "day", new Map(), paceFor(ITEMS, WHOLE, "day", new Map(), room)).height;
    expect(tall(330)).toBeCloseTo(330, 0);
    expect(tall(10)).toBeLessThan(300); // the slowest pace: the board scrolls
    expect(tall(5000)).toBeLessThan(600);
  });
  it("nothing to draw is no height", () => {
    const none = elastic([], WHOLE, "day", new Map());
    expect([none.height, none.y(5), none.ms(5)]).toEqual([0, 0, 0]);
  });
});

describe("lanes", () => {
  const used = (count: number) => Array.from({ length: count }, () => false);
  it.each([
    [980, 4, 84],
    [980, 5, 62],
    [1224, 6, 84],
    [1224, 8, 56],
  ])("%i px and %i cameras give ropes of %i px", (width, cameras, rope) => {
    const lanes = lanesOf(width, used(cameras));
    expect(Math.abs((lanes.at[0]?.rope ?? 0) - rope)).toBeLessThanOrEqual(3);
    expect(lanes.width).toBe(width);
  });
  it("a camera that is idle is a thin cord and gives its width to the others", () => {
    const all = lanesOf(980, used(5));
    const some = lanesOf(980, [false, true, false, true, false]);
    expect(some.at[1]?.w).toBe(28);
    expect(some.at[0]?.rope ?? 0).toBeGreaterThan(all.at[0]?.rope ?? 0);
    expect(some.at.map((one) => one.x)).toEqual(
      some.at.map((_, n) => some.firstX + some.at.slice(0, n).reduce((x, one) => x + one.w, 0)),
    );
  });
  it.each([560, 640, 820, 1024, 1300])("%i px hold the telling and four lanes", (width) => {
    const lanes = lanesOf(width, used(4));
    expect(lanes.telling?.w).toBeGreaterThanOrEqual(168);
    expect(lanes.at.every((one) => one.spine + one.rope < one.w)).toBe(true);
    expect(lanes.width).toBe(width);
  });
  it.each([1, 4, 6, 8])("%i cameras fit a phone", (cameras) => {
    const lanes = lanesOf(390, used(cameras));
    const last = lanes.at.at(-1);
    expect((last?.x ?? 0) + (last?.w ?? 0)).toBeCloseTo(390);
    expect((last?.spine ?? 0) + (last?.rope ?? 0)).toBeLessThanOrEqual(last?.w ?? 0);
  });
  it("the strip stands beside the ropes, never on them", () => {
    const lanes = lanesOf(980, used(4));
    expect(stripLeft(lanes) + 300).toBeLessThanOrEqual(lanes.firstX);
    expect(stripLeft(lanesOf(390, used(4)))).toBe(0);
  });
});

describe("ropes", () => {
  const x = (moment: { charge: number }) => moment.charge * 100;
  it("begin and end at the window, with the rows between", () => {
    const points = columnPoints(COURSE, 50_000, 150_000, (ms) => ms / 1000, x);
    expect(points[0]).toEqual({ x: 75, y: 50 });
    expect(points.at(-1)?.x).toBeCloseTo(25, 2);
    expect(points.at(-1)?.y).toBe(150);
  });
  it("of nothing are nothing", () => {
    const none = {
      t_ms: [],
      charge: [],
      body_c: [],
      cell_c: [],
      held: [],
      used_bytes: [],
      state: [],
    };
    expect(columnPoints(none, 0, 1, (ms) => ms, x)).toEqual([]);
    expect(areaPath([], 0)).toBe("");
  });
  it("fall into the runs that are shown, each reaching to where it begins and ends", () => {
    const at = (x: number, y: number) => ({ x, y });
    const points = [at(9, 0), at(1, 1), at(2, 2), at(9, 3), at(9, 4), at(3, 5)];
    const runs = runsOf(points, (one) => one.x < 5);
    expect(runs.map((run) => run.map((one) => one.y))).toEqual([
      [0, 1, 2, 3],
      [4, 5],
    ]);
    expect(runsOf(points, () => false)).toEqual([]);
  });
  it("drop points on a straight line and keep corners", () => {
    const straight = Array.from({ length: 11 }, (_, n) => ({ x: n, y: n }));
    expect(thin(straight).length).toBeLessThan(4);
    const corner = [
      { x: 0, y: 0 },
      { x: 10, y: 5 },
      { x: 0, y: 10 },
    ];
    expect(thin(corner)).toEqual(corner);
  });
  it("are drawn between the spine and the edge", () => {
    const points = [
      { x: 64, y: 0 },
      { x: 10, y: 50 },
    ];
    expect(areaPath(points, 5)).toBe("M5 0.0L64.0 0.0L10.0 50.0L5 50.0Z");
    expect(linePath(points)).toBe("M64.0 0.0L10.0 50.0");
  });
});

describe("ticks", () => {
  it.each([
    [10, 30, 5],
    [0.5, 30, 60],
    [0.01, 30, 720],
  ])("%f px a minute and %i px apart: every %i min", (px, apart, step) => {
    expect(tickStep(px, apart)).toBe(step);
  });
  it("run from zero to the end", () => {
    expect(minuteTicks(130, 1, 30)).toEqual([0, 30, 60, 90, 120]);
  });
  it("hours stand where the local clock has none left over", () => {
    expect(hourMarks(0, 3 * 3_600_000, 20).map((ms) => ms / MIN)).toEqual([40, 100, 160]);
    expect(hourMarks(0, 3_600_000, 0)).toEqual([0, 3_600_000]);
  });
  it("keep their distance", () => {
    expect(spaced([0, 5, 12, 30], (ms) => ms, 10)).toEqual([0, 12, 30]);
  });
});

describe("words of gaps", () => {
  it("stand in their own leg, in order of time", () => {
    const losses = [
      loss("chin", "climb", 218 * MIN),
      loss("chin", "climb", 219 * MIN, { cause: "hot" }),
    ];
    const told = { ...REHEARSAL, cameras: [cameraResult("chin", { losses })] };
    const scale = elastic(ITEMS, WHOLE, "day", new Map([["climb", 120]]));
    const climb = scale.bands.find((one) => one.id === "climb");
    const lines = gapLines(told, scale);
    expect(lines.map(({ gap }) => gap.kind === "film" && gap.loss)).toEqual(losses);
    const [first, second] = lines.map((one) => one.y);
    expect(first).toBeGreaterThan(climb?.y0 ?? 0);
    expect(second ?? 0).toBeGreaterThanOrEqual((first ?? 0) + 34);
    expect((second ?? 0) + 34).toBeLessThanOrEqual(climb?.y1 ?? 0);
  });
  it("tell what is dead among what is not filmed, and make room for it", () => {
    const scale = elastic(ITEMS, WHOLE, "day", new Map());
    const gap = { start_ms: 30 * MIN, end_ms: 700 * MIN, item: "climb" };
    const cameras = [cameraResult("chin", { losses: [loss("chin", "climb", 40 * MIN)] })];
    const told = { ...REHEARSAL, moves: [], cameras, gear: [{ ...LAPEL, gaps: [gap] }] };
    expect(gapLines(told, scale).map((one) => one.gap.kind)).toEqual(["gear", "film"]);
    const [one, two] = [{ ...told, gear: [] }, told].map((it) => wordHeights(it, scale.bands));
    expect(one?.get("climb")).toBeLessThan(two?.get("climb") ?? 0);
    expect(two?.get("hut")).toBe(0); // it lasts into the hut, and is told once
  });
});
