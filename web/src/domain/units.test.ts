import { readFileSync } from "node:fs";
import { describe, expect, it } from "vitest";
import {
  clipSizeText,
  clipText,
  degreesText,
  durationText,
  gigabytesText,
  kilometresText,
  minuteRangeText,
  minutesText,
  parseDuration,
  parseNumber,
  percentText,
  signedMinutesText,
  signedWattHoursText,
  wattHoursText,
} from "./units";

interface Vectors {
  minutes: [number, string][];
  gigabytes: [number, string][];
  durations: [string, number | null][];
}

// the same vectors are read by the core's tests
const vectors = JSON.parse(readFileSync("../tests/vectors/units.json", "utf-8")) as Vectors;

describe("units read alike here and in the core", () => {
  it.each(vectors.minutes)("%i minutes are %s", (whole, text) => {
    expect(minutesText(whole)).toBe(text);
  });
  it.each(vectors.gigabytes)("%i bytes are %s", (count, text) => {
    expect(gigabytesText(count)).toBe(text);
  });
  it.each(vectors.durations)("the duration %s is %s s", (text, seconds) => {
    expect(parseDuration(text)).toBe(seconds);
  });
});

describe("numbers as people type them", () => {
  it.each([
    ["4", 4],
    [" 4.5 ", 4.5],
    ["4,5", 4.5],
    ["\u22123", -3],
    ["-3", -3],
    [".5", 0.5],
    ["5.", 5],
    ["", null],
    ["four", null],
    ["1e9", null],
    ["1.2.3", null],
    ["NaN", null],
  ])("%j is %j", (text, number) => {
    expect(parseNumber(text)).toBe(number);
  });
});

it("a length goes out and comes back", () => {
  for (const seconds of [60, 300, 5700, 86_400])
    expect(parseDuration(durationText(seconds))).toBe(seconds);
});

it("figures carry their unit and a true minus", () => {
  expect(percentText(0.095)).toBe("10 %");
  expect(degreesText(-3.4)).toBe("\u22123°");
  expect(wattHoursText(5.7)).toBe("5.7 W h");
  expect(wattHoursText(37.2)).toBe("37 W h");
});

it("differences say their sign", () => {
  expect(signedMinutesText(34)).toBe("+34 min");
  expect(signedMinutesText(-95)).toBe("\u22121 h 35");
  expect(signedMinutesText(0)).toBe("±0 min");
  expect(signedWattHoursText(-5.6)).toBe("\u22125.6 W h");
  expect(signedWattHoursText(0.01)).toBe("±0 W h");
});

describe("clips and ranges", () => {
  it.each([
    [0.1, "6 s"],
    [1.99, "119 s"],
    [61, "1 h 01"],
  ])("a clip of %s min is %s long", (minutes, text) => {
    expect(clipText(minutes)).toBe(text);
  });
  it.each([
    [840, "840 m"],
    [1240, "1.2 km"],
    [20_000, "20 km"],
    [134_990, "135 km"],
  ])("%s m are %s", (metres, text) => {
    expect(kilometresText(metres)).toBe(text);
  });
  it("small clips are told in megabytes", () => {
    expect([clipSizeText(797_975), clipSizeText(21.5e9)]).toEqual(["0.8 MB", "22 GB"]);
  });
  it.each([
    [13, 17, "13 to 17 min"],
    [58, 64, "58 min to 1 h 04"],
    [70, 95, "1 h 10 to 1 h 35"],
    [27.6, 28.4, "28 min"],
  ])("%s and %s are %s", (low, high, text) => {
    expect(minuteRangeText(low, high)).toBe(text);
  });
});
