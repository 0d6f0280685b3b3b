import { describe, expect, it } from "vitest";
import { clashesText } from "./clashes";
import { isSame, merge } from "./merge";

const BASE = {
  trip: {
    name: "Way",
    items: [
      { id: "a", s: 1 },
      { id: "b", s: 2 },
      { id: "c", s: 3 },
    ],
  },
  plan: { assignments: [{ camera: "chin", item: "a", mode: "m", pattern: { kind: "roll" } }] },
};
type Doc = typeof BASE;
const items = (...ids: string[]) => ids.map((id) => ({ id, s: 1 }));
const withItems = (list: { id: string; s: number }[]): Doc => ({
  ...BASE,
  trip: { ...BASE.trip, items: list },
});

describe("two edits of one document", () => {
  it("of different fields are both kept", () => {
    const mine = { ...BASE, trip: { ...BASE.trip, name: "Mine" } };
    const theirs = withItems(
      BASE.trip.items.map((one) => (one.id === "b" ? { ...one, s: 9 } : one)),
    );
    const { merged, clashes } = merge(BASE, mine, theirs);
    expect(clashes).toEqual([]);
    expect(merged.trip.name).toBe("Mine");
    expect(merged.trip.items[1]).toEqual({ id: "b", s: 9 });
  });
  it("of the same field clash, and the rest is still brought together", () => {
    const mine = { a: 1, b: 1, c: 0 };
    const theirs = { a: 2, b: 0, c: 2 };
    const base = { a: 0, b: 0, c: 0 };
    expect(merge(base, mine, theirs)).toEqual({ merged: { a: 1, b: 1, c: 2 }, clashes: ["a"] });
    expect(merge(base, mine, theirs, "theirs").merged).toEqual({ a: 2, b: 1, c: 2 });
  });
  it("the same edit twice is no clash", () => {
    const both = withItems(items("z"));
    expect(merge(BASE, both, structuredClone(both)).clashes).toEqual([]);
  });
  it("parts added by both are all there, each where it was put", () => {
    const base = { list: items("a", "b") };
    const mine = { list: items("a", "x", "b") };
    const theirs = { list: items("a", "b", "y") };
    const { merged, clashes } = merge(base, mine, theirs);
    expect(merged.list.map((one) => one.id)).toEqual(["a", "x", "b", "y"]);
    expect(clashes).toEqual([]);
  });
  it("a part deleted by one and left by the other is gone; edited by the other it clashes", () => {
    const base = { list: items("a", "b") };
    expect(merge(base, { list: items("b") }, base).merged.list).toEqual(items("b"));
    const edited = {
      list: [
        { id: "a", s: 5 },
        { id: "b", s: 1 },
      ],
    };
    const { merged, clashes } = merge(base, { list: items("b") }, edited);
    expect(clashes).toEqual(["list.a"]);
    expect(merged.list).toEqual(items("b"));
    expect(merge(base, { list: items("b") }, edited, "theirs").merged.list).toHaveLength(2);
  });
  it("one may move what the other edits", () => {
    const base = { list: items("a", "b", "c") };
    const mine = { list: items("c", "a", "b") };
    const theirs = { list: [{ id: "a", s: 7 }, ...items("b", "c")] };
    const { merged, clashes } = merge(base, mine, theirs);
    expect(merged.list).toEqual([
      { id: "c", s: 1 },
      { id: "a", s: 7 },
      { id: "b", s: 1 },
    ]);
    expect(clashes).toEqual([]);
  });
  it("two orders clash", () => {
    const list = (...ids: string[]) => ({ list: items(...ids) });
    const { clashes } = merge(list("a", "b", "c"), list("c", "a", "b"), list("b", "a", "c"));
    expect(clashes).toEqual(["list (order)"]);
  });
  it("patterns of two kinds are never mixed", () => {
    const pattern = (value: object) => ({ pattern: value });
    const base = pattern({ kind: "roll" });
    const mine = pattern({ kind: "takes", seconds: 30, count: 2 });
    const theirs = pattern({ kind: "loop", length_s: 300 });
    expect(merge(base, mine, theirs)).toEqual({ merged: mine, clashes: ["pattern"] });
  });
  it("lists without names of their parts are taken whole", () => {
    expect(merge({ p: [1, 2] }, { p: [1, 3] }, { p: [2, 2] }).clashes).toEqual(["p"]);
  });
  it("holds everything that only one changed, whatever both did", () => {
    // every pair of edits of a small document: no change of one alone is ever lost
    const states = [0, 1, 2].flatMap((x) => [0, 1, 2].map((y) => ({ x, y, z: { w: x } })));
    const base = { x: 0, y: 0, z: { w: 0 } };
    for (const mine of states)
      for (const theirs of states) {
        const { merged } = merge(base, mine, theirs);
        for (const name of ["x", "y"] as const) {
          if (mine[name] === 0) expect(merged[name]).toBe(theirs[name]);
          else expect(merged[name]).toBe(mine[name]);
        }
      }
  });
  it("are told by what they changed", () => {
    expect(clashesText(["trip.items.way.name", "plan.assignments"])).toBe(
      "name of way, assignments",
    );
    expect(clashesText(["a", "b", "c", "d"])).toBe("a, b, c, 1 more");
    const names = new Map([
      ["chin", "Chin"],
      ["d2-flight", "long flight"],
    ]);
    const path = "plan.assignments.chin on d2-flight.mode";
    expect(clashesText([path], names)).toBe("mode of Chin on long flight");
  });
  it("are compared by value", () => {
    expect(isSame({ a: [1, { b: null }] }, { a: [1, { b: null }] })).toBe(true);
    expect(isSame({ a: 1 }, { a: 1, b: undefined })).toBe(true);
    expect(isSame([1], { 0: 1 })).toBe(false);
  });
});
