import { describe, expect, it } from "vitest";
import { legHours } from "../../domain/patterns";
import { DOCUMENT } from "../../testing/samples";
import { withHow } from "./editing";

const { kit, plan } = DOCUMENT;
const HOUR = 3_600_000;
const clock = {
  time: (ms: number) => new Date(22 * HOUR + ms).toISOString().slice(11, 16), // starts at 22:00
};
const hours = () => legHours(HOUR / 2, 3 * HOUR + 1, clock);
const WAY = [{ camera: "chin", item: "way" }];
const at = (edge: string) => ({ kind: "clock", at: `${edge}:00` });

describe("by the clock", () => {
  it("begins as long as its leg, over midnight and to the end of its last minute", () => {
    const after = withHow(kit, plan, WAY, "windows", hours);
    const asked = after.assignments.find((one) => one.item === "way");
    expect(asked?.pattern).toEqual({
      kind: "windows",
      windows: [{ opens: at("22:30"), closes: at("01:01") }],
    });
  });
  it("chosen again stays as it was set", () => {
    const once = withHow(kit, plan, WAY, "windows", hours);
    expect(withHow(kit, once, WAY, "windows", () => ({ kind: "roll" }))).toEqual(once);
    expect(withHow(kit, once, WAY, "roll", hours).assignments[0]?.pattern.kind).toBe("roll");
  });
});
