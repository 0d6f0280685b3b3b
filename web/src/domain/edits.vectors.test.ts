import { readFileSync, writeFileSync } from "node:fs";
import { describe, expect, it } from "vitest";
import { withFitted, withoutAssignment, withoutItem, withSwap } from "./edits";
import { withMoved, withPlug } from "./handEdits";
import { withLinked } from "./planEdits";
import type { Move, Plan, PlanDocument } from "./types";

interface Case {
  does: string;
  items: string[];
  plan: Plan;
}

// the same vectors are read by the core's tests, which want every state to be a document
const PATH = "../tests/vectors/edits.json";
const { before, after } = JSON.parse(readFileSync(PATH, "utf-8")) as {
  before: PlanDocument;
  after: Case[];
};
const { trip, plan } = before;
const items = trip.items.map((one) => one.id);
const swap = { kind: "swap", camera: "cam", item: "camp", unit: "a2" } as Move;
const plug = { kind: "plug", camera: "", item: "camp", unit: "a2" } as Move;
const copy = { kind: "copy", camera: "cam", item: "camp", unit: "" } as Move;
const gone = (id: string) => {
  const left = withoutItem({ trip, plan }, id);
  return { items: left.trip.items.map((one) => one.id), plan: left.plan };
};

const EDITS: Record<string, () => Omit<Case, "does">> = {
  "a stop goes with all that was said for it": () => gone("camp"),
  "a leg goes with all that was said for it": () => gone("way"),
  "a stretch goes alone": () => ({ items, plan: withoutAssignment(plan, "cam", "way") }),
  "another battery is in it at the start": () => ({ items, plan: withFitted(plan, "cam", "a2") }),
  "a swap is left to the policy": () => ({ items, plan: withSwap(plan, "cam", "camp", undefined) }),
  "a battery is left in": () => ({ items, plan: withSwap(plan, "cam", "camp", null) }),
  "a swap is done elsewhere": () => ({ items, plan: withMoved(plan, swap, "hut") }),
  "a plug is done elsewhere": () => ({ items, plan: withMoved(plan, plug, "hut") }),
  "a copying is done elsewhere": () => ({ items, plan: withMoved(plan, copy, "hut") }),
  "a battery is kept off power": () => ({ items, plan: withPlug(plan, "a2", "camp", false) }),
  "one action starts both": () => ({ items, plan: withLinked(plan, "cam", "two", true) }),
};

if (process.env["VECTORS"] === "write") {
  const made = Object.entries(EDITS).map(([does, edit]) => ({ does, ...edit() }));
  writeFileSync(PATH, `${JSON.stringify({ before, after: made }, null, 1)}\n`);
}

describe("an edit comes to what the vectors say", () => {
  it.each(Object.keys(EDITS))("%s", (does) => {
    const { items: left, plan: now } = after.find((one) => one.does === does) ?? {};
    expect(EDITS[does]?.()).toEqual({ items: left, plan: now });
  });
  it("and none is left out", () => {
    expect(after.map((one) => one.does)).toEqual(Object.keys(EDITS));
  });
});
