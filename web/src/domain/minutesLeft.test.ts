import { describe, expect, it } from "vitest";
import { DOCUMENT, REHEARSAL } from "../testing/samples";
import { batteryMinutes, rateAt, roomMinutes, takers } from "./minutesLeft";
import { lastsText, tidyText } from "./units";

const RATE = { assignment: 0, watts: 4, bytes_s: 7.5e6 };

describe("minutes left", () => {
  it("is charge over watts, and room over bytes a second", () => {
    expect(batteryMinutes(RATE, 0.5, 5.7)).toBe(42); // 2.85 W h at 4 W: 42.75 min
    expect(roomMinutes(RATE, 64e9)).toBe(142); // 60 Mbit/s
    expect(roomMinutes(RATE, -5)).toBe(0);
  });
  it("is not told where nothing runs, draws or writes", () => {
    expect(batteryMinutes(null, 1, 5.7)).toBeNull();
    expect(roomMinutes({ ...RATE, bytes_s: 0 }, 64e9)).toBeNull();
  });
  it("goes by what is asked now, then by what is asked next, and by nothing after all", () => {
    const told = { ...REHEARSAL, rates: [RATE] };
    const end = told.items.at(-1)?.end_ms ?? 0;
    expect(rateAt(DOCUMENT, told, ["chin"], 0)).toBe(RATE);
    expect(rateAt(DOCUMENT, told, ["chin"], end - 1)).toBe(RATE);
    expect(rateAt(DOCUMENT, told, ["chin"], end)).toBeNull();
    expect(rateAt(DOCUMENT, told, ["boom"], 0)).toBeNull();
  });
  it("takes the cameras that a unit fits", () => {
    expect(takers(DOCUMENT.kit.cameras, (one) => one.battery_family === "a")).toEqual(["chin"]);
    expect(takers(DOCUMENT.kit.cameras, (one) => one.battery_family === "z")).toEqual([]);
  });
  it("is told in whole hours where it is long", () => {
    expect([43, 599, 600, 17_573].map(lastsText)).toEqual([
      "43 min",
      "9 h 59",
      "10 h",
      "over 99 h",
    ]);
  });
  it("has no more digits than it deserves", () => {
    expect([4.24, 17.6, -3.21, 0].map(tidyText)).toEqual(["4.2", "18", "\u22123.2", "0"]);
  });
});
