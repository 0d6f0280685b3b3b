import { describe, expect, it } from "vitest";
import { DOCUMENT } from "../testing/samples";
import { rowsGone, rowsText, staysText, type TripRows } from "./gone";
import { withoutMissing, withoutNamed } from "./refers";
import type { Kit, Plan } from "./types";

const plan = {
  ...DOCUMENT.plan,
  cameras: [{ camera: "chin", battery: "a1", card: "k1" }],
  swaps: [
    { camera: "chin", item: "camp", battery: "a2" },
    { camera: "chin", item: "hut", battery: "a3" },
  ],
  links: [{ cameras: ["chin", "boom"] }],
} as unknown as Plan;

describe("what goes with a unit", () => {
  it("is counted by the rows that are gone or have lost a name", () => {
    expect(
      rowsGone(
        plan,
        withoutNamed(plan, "battery", (id) => id === "a1"),
      ),
    ).toEqual({
      cameras: 1,
    });
    const camera = withoutNamed(plan, "camera", (id) => id === "chin");
    expect(rowsGone(plan, camera)).toMatchObject({ cameras: 1, swaps: 2, links: 1 });
    expect(rowsGone(plan, plan)).toEqual({});
  });
  it("is said by trip, one and many", () => {
    const trips: TripRows[] = [
      { trip: "Crossing", rows: { cameras: 1, swaps: 2, links: 1 } },
      { trip: "Regatta", rows: { plugs: 3 } },
    ];
    expect(rowsText(trips)).toBe(
      "what a camera starts with, 2 battery swaps and 1 pair of cameras of Crossing; 3 chargings of Regatta",
    );
  });
  it("of a mode stays, and that is said", () => {
    expect(staysText("mode", [])).toBeUndefined();
    expect(staysText("mode", ["A", "B"])).toContain("A and B ask for it.");
  });
});

describe("a plan less what its kit has not", () => {
  const { kit } = DOCUMENT;
  it("is the same one while nothing is missing", () => {
    expect(withoutMissing(DOCUMENT.plan, kit)).toBe(DOCUMENT.plan);
  });
  it("names nothing that is missing", () => {
    const bare = { ...kit, batteries: [], cards: [], cameras: [] } as Kit;
    const left = withoutMissing(plan, bare);
    expect([left.cameras, left.swaps, left.links]).toEqual([[], [], []]);
    const noBattery = withoutMissing(plan, { ...kit, batteries: [] });
    expect(noBattery.cameras).toMatchObject([{ battery: null, card: "k1" }]);
  });
});
