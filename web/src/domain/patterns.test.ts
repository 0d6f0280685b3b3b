import { describe, expect, it } from "vitest";
import { DOCUMENT } from "../testing/samples";
import { asOffered, clockEdge, clockText, PATTERNS, patternOf } from "./patterns";
import type { Assignment } from "./types";

const asked = DOCUMENT.plan.assignments[0] as Assignment;

describe("a pattern that is chosen", () => {
  it.each(PATTERNS)("%s is of its kind when it is new", (kind) => {
    expect(patternOf(kind, asked).kind).toBe(kind);
    expect(patternOf(kind, undefined).kind).toBe(kind);
  });
  it("is as it is asked already", () => {
    const takes = { kind: "takes", seconds: 7, count: 3, per_hour: null } as const;
    expect(patternOf("takes", { ...asked, pattern: takes })).toBe(takes);
    expect(patternOf("loop", { ...asked, pattern: takes })).toMatchObject({ length_s: 120 });
  });
  it("is one of the loops that the camera has", () => {
    const offered = [60, 300].map((length_s) => ({ length_s, segment_s: length_s / 3 }));
    const fresh = patternOf("loop", undefined); // of two minutes
    expect(asOffered(fresh, offered)).toMatchObject({ length_s: 300, segments: 3 });
    expect(asOffered(fresh, offered.slice(0, 1))).toMatchObject({ length_s: 60 });
    expect(asOffered(fresh, [])).toBe(fresh);
    expect(asOffered({ kind: "roll" }, offered)).toEqual({ kind: "roll" });
  });
  it("counts in one way only", () => {
    for (const kind of ["takes", "armed"] as const) {
      const fresh = patternOf(kind, undefined) as { count: unknown; per_hour: unknown };
      expect([fresh.count === null, fresh.per_hour === null]).toEqual([true, false]);
    }
  });
});

describe("an edge by the clock", () => {
  it.each([
    ["7:05", "07:05:00"],
    [" 23:59 ", "23:59:00"],
    ["00:00", "00:00:00"],
  ])("%j is %s", (text, at) => {
    expect(clockEdge(text)).toEqual({ kind: "clock", at });
  });
  it.each(["24:00", "12:60", "7", "7:5", "noon", ""])("%j is none", (text) => {
    expect(clockEdge(text)).toBeNull();
  });
  it("is shown without seconds, and one of the sun not at all", () => {
    expect(clockText({ kind: "clock", at: "07:05:00" })).toBe("07:05");
    expect(clockText({ kind: "sun", event: "dawn", plus_min: 0 })).toBeNull();
  });
});
