import { describe, expect, it } from "vitest";
import { minutesToTaper, rateOf } from "./charging";

describe("charging as people know it", () => {
  it("is a rate: 0 to 80 % in 25 min is 1.92 an hour", () => {
    expect(rateOf(0.8, 25)).toBeCloseTo(1.92, 6);
    expect(rateOf(0.5, 30)).toBeCloseTo(1, 6);
  });
  it("reckons with the taper above: at 1 an hour 99 % takes 48 + 12 ln 20 = 83.9 min", () => {
    expect(rateOf(0.99, 83.949)).toBeCloseTo(1, 3);
    expect(rateOf(1, 83.949)).toBeCloseTo(1, 3); // no cell is ever fuller than that
  });
  it("goes back to minutes", () => {
    expect(minutesToTaper(rateOf(0.8, 25))).toBeCloseTo(25, 6);
  });
});
