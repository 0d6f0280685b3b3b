import { describe, expect, it } from "vitest";
import { DOCUMENT } from "../testing/samples";
import { clockEdge, clockText, patternOf, PATTERNS } from "./patterns";
import {
  freshCharger,
  freshDrive,
  freshLoad,
  freshPocket,
  freshSource,
  portWatts,
  portsOf,
  SOURCE_KINDS,
  withoutNames,
} from "./powerEdits";
import type { Assignment, Battery, Kit, Source } from "./types";

const { kit, plan } = DOCUMENT;
const asked = plan.assignments[0] as Assignment;

describe("patterns", () => {
  it("each is new when first chosen, and as it is asked when chosen again", () => {
    expect(PATTERNS.map((kind) => patternOf(kind, undefined).kind)).toEqual([...PATTERNS]);
    const loop = { ...patternOf("loop", undefined), length_s: 77 } as Assignment["pattern"];
    expect(patternOf("loop", { ...asked, pattern: loop })).toBe(loop);
  });
  it.each([
    ["7:05", "07:05:00"],
    ["23:59", "23:59:00"],
    ["24:00", null],
    ["7.30", null],
    ["", null],
  ])("the clock %s", (text, at) => {
    expect(clockEdge(text)).toEqual(at === null ? null : { kind: "clock", at });
  });
  it("an edge of the sun has no clock", () => {
    expect(clockText({ kind: "sun", event: "dawn", plus_min: 3 })).toBeNull();
    expect(clockText({ kind: "clock", at: "07:30:00" })).toBe("07:30");
  });
});

describe("what keeps cameras going", () => {
  it("a new unit has a key of its own", () => {
    const one = freshPocket(kit);
    const two = freshPocket({ ...kit, pockets: [one] });
    expect(two.id).not.toBe(one.id);
    expect(freshCharger(kit).families).toEqual(["a"]);
    expect(freshLoad(kit).bank).toBeNull();
    expect(freshDrive(kit).kind).toBe("drive");
  });
  it.each(Object.keys(SOURCE_KINDS) as Source["kind"][])("a new %s has a port", (kind) => {
    expect(freshSource(kit, kind).kind).toBe(kind);
    expect(portWatts(freshSource(kit, kind))).toEqual([expect.any(Number)]);
  });
  it.each([
    ["18, 10", [18, 10]],
    ["12 W; 7.5W", [12, 7.5]],
    ["", null],
    ["10, x", null],
    ["0", null],
  ])("ports of %s", (text, ports) => {
    expect(portsOf(text)).toEqual(ports);
  });
  it("what named a pocket or bank that is gone lies in the bag, or on the first bank", () => {
    const pocket = freshPocket(kit);
    const bank = { ...freshSource(kit, "bank"), pocket: pocket.id } as Source;
    const load = { ...freshLoad(kit), bank: "gone" };
    const spare = { ...(kit.batteries[0] as Battery), pocket: pocket.id };
    const full: Kit = { ...kit, batteries: [spare], sources: [bank], loads: [load] };
    const after = withoutNames(full);
    expect(after.batteries[0]?.pocket).toBeNull();
    expect(after.sources[0]).toMatchObject({ pocket: null });
    expect(after.loads[0]?.bank).toBeNull();
    expect(withoutNames({ ...full, pockets: [pocket] }).batteries[0]?.pocket).toBe(pocket.id);
  });
});
