import { describe, expect, it } from "vitest";
import { COURSE, laid, loss } from "../testing/samples";
import { gapTexts } from "../board/gapTexts";
import { elastic, PX_PER_MIN } from "./elastic";
import { LINE_PX, placeLabels } from "./labels";
import { lanesOf, stripLeft } from "./lanes";
import { areaPath, columnPoints, linePath, thin } from "./rope";
import { hourMarks, minuteTicks, spaced, tickStep } from "./ticks";

const MIN = 60_000;
const NIGHT_PX = 150;
const ITEMS = [
  laid("camp", "stop", 0, 20),
  laid("climb", "leg", 20, 220),
  laid("hut", "stop", 220, 1000),
  laid("ridge", "leg", 1000, 1005),
];
const WHOLE = { startMs: 0, endMs: 1005 * MIN };

describe("elastic time", () => {
  const scale = elastic(ITEMS, WHOLE, "day", new Map([["camp", 3]]));
  const height = (id: string) => {
    const band = scale.bands.find((one) => one.id === id);
    return band ? band.y1 - band.y0 : 0;
  };
  it("legs share one scale", () => {
    expect(height("climb")).toBeCloseTo(200 * PX_PER_MIN);
  });
  it("a stop is as tall as the work in it", () => {
    expect(height("camp")).toBe(22 + 3 * 17);
  });
  it("a night is squeezed, and says that it is not true to the clock", () => {
    expect(height("hut")).toBe(NIGHT_PX);
    expect(scale.bands.find((one) => one.id === "hut")?.stretched).toBe(true);
    expect(scale.bands.find((one) => one.id === "climb")?.stretched).toBe(false);
  });
  it("a short leg can still be hit", () => {
    expect(height("ridge")).toBe(16);
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
    expect(cut.ms(-50)).toBe(100 * MIN);
    expect(cut.ms(9999)).toBe(300 * MIN);
  });
  it("folded to stops, legs are thin and stops keep room for their work", () => {
    const folded = elastic(ITEMS, WHOLE, "stops", new Map([["camp", 2]]));
    expect(folded.bands.map((band) => band.y1 - band.y0)).toEqual([40, 18, 24, 18]);
  });
  it("nothing to draw is no height", () => {
    const none = elastic([], WHOLE, "day", new Map());
    expect([none.height, none.y(5), none.ms(5)]).toEqual([0, 0, 0]);
  });
});

describe("lanes", () => {
  it.each([
    [980, 4, 64],
    [980, 5, 56],
    [1224, 6, 48],
    [1224, 8, 40],
  ])("%i px and %i cameras give ropes of %i px", (width, cameras, rope) => {
    expect(lanesOf(width, cameras).rope).toBe(rope);
  });
  it.each([1, 4, 6, 8])("%i cameras fit a phone", (cameras) => {
    const lanes = lanesOf(390, cameras);
    expect(lanes.firstX + lanes.lane * cameras).toBeCloseTo(390);
    expect(lanes.card + 4).toBeLessThanOrEqual(lanes.lane + 1);
  });
  it("the strip of the last lane reaches over the side, never out of the page", () => {
    const lanes = lanesOf(980, 4);
    expect(stripLeft(lanes, 0)).toBe(lanes.firstX + lanes.gutter - 8);
    expect(stripLeft(lanes, 3) + 276).toBeLessThanOrEqual(lanes.width + 290);
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

describe("words beside gaps", () => {
  it("never cover each other", () => {
    const placed = placeLabels([
      { top: 0, bottom: 200, lines: 2 },
      { top: 10, bottom: 200, lines: 2 },
      { top: 100, bottom: 200, lines: 2 },
    ]);
    expect(placed).toEqual([
      { y: 0, lines: 1 },
      { y: LINE_PX, lines: 2 },
      { y: 100, lines: 2 },
    ]);
  });
  it("end where the next stop's work begins", () => {
    expect(placeLabels([{ top: 90, bottom: 100, lines: 2 }])).toEqual([{ y: 70, lines: 2 }]);
  });
  const scale = elastic(ITEMS, WHOLE, "day", new Map());
  it("say minutes and cause", () => {
    expect(gapTexts([loss("chin", "climb", 30 * MIN)], scale, false)).toMatchObject([
      { minutes: "1 min lost", cause: "A1 empty" },
    ]);
    expect(gapTexts([loss("chin", "climb", 30 * MIN)], scale, true)[0]?.cause).toBeNull();
  });
  it("add up where a leg is too short for all of them", () => {
    const both = [
      loss("chin", "ridge", 1001 * MIN, { minutes: 2 }),
      loss("chin", "ridge", 1003 * MIN, { cause: "hot", minutes: 3 }),
    ];
    expect(gapTexts(both, scale, false)).toMatchObject([{ minutes: "5 min lost", cause: null }]);
  });
});
