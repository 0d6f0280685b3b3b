import { describe, expect, it } from "vitest";
import { DOCUMENT, powered } from "../testing/samples";
import { fillable, freshFullBy, linkedWith, withLinked } from "./planEdits";
import type { Plan } from "./types";

const plan = (...links: string[][]): Plan => ({
  ...DOCUMENT.plan,
  links: links.map((cameras) => ({ cameras })),
});
const sets = (of: Plan) => of.links.map((link) => [...link.cameras].sort());

describe("linked cameras", () => {
  it("are those of the same link, without the camera itself", () => {
    expect(linkedWith(plan(["chin", "boom"], ["foot", "camp"]), "foot")).toEqual(["camp"]);
    expect(linkedWith(plan(), "foot")).toEqual([]);
  });
  it("two that are linked to others become one link of all", () => {
    const one = withLinked(plan(["chin", "boom"], ["foot", "camp"]), "chin", "foot", true);
    expect(sets(one)).toEqual([["boom", "camp", "chin", "foot"]]);
  });
  it("linking twice changes nothing", () => {
    const once = withLinked(plan(), "chin", "boom", true);
    expect(sets(withLinked(once, "boom", "chin", true))).toEqual([["boom", "chin"]]);
  });
  it("one taken out leaves the others linked", () => {
    const left = withLinked(plan(["chin", "boom", "foot"]), "chin", "boom", false);
    expect(sets(left)).toEqual([["chin", "foot"]]);
  });
  it("a link of one is none", () => {
    expect(withLinked(plan(["chin", "boom"]), "chin", "boom", false).links).toEqual([]);
  });
  it("other links are left alone", () => {
    const left = withLinked(plan(["chin", "boom"], ["foot", "camp"]), "chin", "boom", false);
    expect(sets(left)).toEqual([["camp", "foot"]]);
  });
});

describe("what must be full by a time", () => {
  const kit = powered(DOCUMENT.kit);
  it("is a battery or a bank, nothing else", () => {
    expect(fillable(kit).map((one) => one.id)).toEqual(["a1", "a2", "slab"]);
  });
  it("begins with the first that has no such wish, at six on the next morning", () => {
    const first = freshFullBy(kit, DOCUMENT.plan, DOCUMENT.trip);
    expect(first).toEqual({ unit: "a1", at: "2027-06-13T06:00:00" });
    const second = { ...DOCUMENT.plan, full_by: [first ?? { unit: "", at: "" }] };
    expect(freshFullBy(kit, second, DOCUMENT.trip)?.unit).toBe("a2");
  });
  it("the morning after the last of a month is the first of the next", () => {
    const trip = { ...DOCUMENT.trip, start: "2027-06-30T22:00:00" };
    expect(freshFullBy(kit, DOCUMENT.plan, trip)?.at).toBe("2027-07-01T06:00:00");
  });
  it("nothing is left when all have one", () => {
    const all = fillable(kit).map((one) => ({ unit: one.id, at: "2027-06-13T06:00:00" }));
    expect(freshFullBy(kit, { ...DOCUMENT.plan, full_by: all }, DOCUMENT.trip)).toBeNull();
  });
});
