import { describe, expect, it } from "vitest";
import { HIGH_LEG, LOW_LEG, ON_WAY, TARN, TOLD } from "../testing/routeSamples";
import { clockOf } from "./clock";
import type { ItemTold } from "./types";
import { between, endOf, hereAt, hereWords, msIn, msNear, pointAt, sideWords } from "./route";

const MINUTE = 60_000;
const at = (minutes: number) => hereAt(TOLD, ON_WAY, minutes * MINUTE);

describe("the hand on the route", () => {
  it("is on a leg, at its place along the way, its height and its point of the plan", () => {
    expect(at(15)).toMatchObject({ item: "low", share: 0.5, along: 1000, height: 1100 });
    expect(at(15)?.at).toEqual([1000, 0]);
    expect(at(55)?.at).toEqual([2000, 1000]);
    expect(at(35)).toMatchObject({ item: "tarn", along: 2000 });
  });
  it("stays at the ends of the trip", () => {
    expect(at(-5)).toMatchObject({ item: "low", share: 0 });
    expect(at(500)).toMatchObject({ item: "high", share: 1 });
    expect(endOf(TOLD)).toBe(70 * MINUTE);
    expect(hereAt({ ...TOLD, items: [] }, ON_WAY, 0)).toBeNull();
  });
  it("is found from the nearest point of the plan, and back", () => {
    expect(msNear(TOLD, ON_WAY, 900, 400)).toBe(15 * MINUTE);
    expect(msNear(TOLD, ON_WAY, 2500, 1100)).toBe(55 * MINUTE);
    expect(msNear({ ...TOLD, plans: [] }, ON_WAY, 0, 0)).toBeNull();
  });
  it("is told in words with units", () => {
    const clock = clockOf("UTC", TOLD.start_utc);
    const low = { ...LOW_LEG, temp_doubt_k: 2.4, air_mps: 1.5 };
    const here = at(15);
    expect(here && hereWords(here, low, clock)).toBe(
      "06:15 · low · 1 km · 1100 m · 15 °C ± 2 · air 1.5 m/s · sun 15° up, from the left, 75 W/m² on the kit",
    );
  });
  it.each([
    [10, "ahead"],
    [-170, "from behind"],
    [80, "from the right"],
    [-80, "from the left"],
  ])("a sun %s degrees from the travel shines %s", (side, words) => {
    expect(sideWords(side)).toBe(words);
  });
  it("no column, no value", () => {
    expect(between([], 0.5)).toBeNull();
    expect(between([3], 1)).toBe(3);
    expect(msIn(TOLD.items[0] as ItemTold, -1)).toBe(0);
    expect(
      pointAt(TOLD, { ...ON_WAY, items: [{ ...TARN, on_way: null }, HIGH_LEG] }, "tarn", 0),
    ).toBe(null);
  });
});
