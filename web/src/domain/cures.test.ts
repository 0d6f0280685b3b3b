import { describe, expect, it } from "vitest";
import { ON_WAY } from "../testing/routeSamples";
import { DOCUMENT } from "../testing/samples";
import { apart, cureFigures, keptCure, sameTarget, targetOfLoss, withCure } from "./cures";
import type { Cure } from "./types";

const CURE: Cure = {
  text: "Carry one more battery A.",
  edits: 1,
  closes: true,
  closed_ms: 1_920_000,
  must_ms: 1_920_000,
  want_ms: 0,
  nice_ms: -300_000,
  must_moments: 0,
  want_moments: 0,
  nice_moments: 0,
  asked_ms: 0,
  breaks: 0,
  leaves: "then no must is broken",
  gives_up: false,
  warnings: 0,
  grams: 38,
  picture: 0,
  halts: 0,
  wh: -1.24,
  bytes: 0,
  side: [],
  kit: null,
  trip: null,
  plan: null,
};

describe("cures and giving up", () => {
  it("stand apart, each in its order", () => {
    const less = { ...CURE, gives_up: true };
    const other = { ...CURE, text: "Film it in 1080 30." };
    expect(apart([less, CURE, other])).toEqual([[CURE, other], [less]]);
  });
});

describe("what a cure gains and costs", () => {
  it("is told with signs and units, and without what does not change", () => {
    expect(cureFigures(CURE)).toBe("+32 min must · −5 min nice · 38 g · −1.2 W h");
    const dear = { ...CURE, nice_ms: 0, grams: 0, picture: 0.75, halts: 1, bytes: -22e9, wh: 0.04 };
    expect(cureFigures({ ...CURE, must_moments: 1.42, warnings: 1 })).toBe(
      "+1.4 must moments · +32 min must · −5 min nice · 38 g · brings 1 warning · −1.2 W h",
    );
    expect(cureFigures(dear)).toBe("+32 min must · −75 % picture · 1 more halt · −22 GB");
  });
});

describe("a cure tried and kept", () => {
  const plan = { ...DOCUMENT.plan, charging: "never" as const };
  it("replaces what it changes; tried, the trip goes without its ways", () => {
    const tried = withCure(DOCUMENT, { ...CURE, plan, trip: ON_WAY });
    expect(tried.plan).toBe(plan);
    expect(tried.kit).toBe(DOCUMENT.kit);
    expect(tried.trip.ways).toEqual([]);
  });
  it("kept, the ways stay", () => {
    const kept = keptCure(DOCUMENT, { ...CURE, trip: ON_WAY });
    expect(kept.trip).toBe(ON_WAY);
    expect(kept.plan).toBe(DOCUMENT.plan);
  });
});

describe("what is to be cured", () => {
  it("is the same by camera, leg, code and path", () => {
    const target = targetOfLoss({ camera: "chin", item: "way" });
    expect(sameTarget({ ...target }, target)).toBe(true);
    expect(sameTarget({ ...target, code: "x" }, target)).toBe(false);
    expect(sameTarget(null, target)).toBe(false);
  });
});
