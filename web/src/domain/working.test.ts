import { describe, expect, it } from "vitest";
import { cameraResult, DOCUMENT, REHEARSAL } from "../testing/samples";
import { differenceText } from "./difference";
import { withFitted } from "./edits";
import { barredAt, movable, permitted, withMoved, withPlug } from "./handEdits";
import { problemsOf } from "./problems";
import { withDuration } from "./routeEdits";
import { stretchesOf, withStretch } from "./stretches";
import type { Assignment, Item, Leg, Move, Plan, Rehearsal, Stop, Trip } from "./types";

const { kit } = DOCUMENT;
const leg = DOCUMENT.trip.items.find((one) => one.kind === "leg") as Leg;
const stop = DOCUMENT.trip.items.find((one) => one.kind === "stop") as Stop;
const asked = DOCUMENT.plan.assignments[0] as Assignment;
const ITEMS: Item[] = [
  { ...stop, id: "camp", asleep: null },
  { ...leg, id: "climb", hands: "stops" },
  { ...stop, id: "saddle", asleep: null },
  { ...leg, id: "walk", hands: "free" },
  { ...stop, id: "night", duration_s: 3600, asleep: { start_s: 0, duration_s: 3600 } },
];
const TRIP: Trip = { ...DOCUMENT.trip, items: ITEMS };
const move = (part: Partial<Move>): Move => ({
  at_ms: 0,
  end_ms: 0,
  item: "camp",
  camera: "chin",
  alone: false,
  kind: "swap",
  takes_out: "A1",
  puts_in: "A2",
  unit: "a2",
  text: "A1 → A2",
  ...part,
});
const plan = (part: Partial<Plan>): Plan => ({ ...DOCUMENT.plan, ...part });

describe("the hands' work at another stop", () => {
  it.each([
    ["swap", ["camp", "saddle", "walk"]],
    ["copy", ["camp", "saddle"]],
    ["plug", []], // nothing gives power
  ] as const)("%s is permitted at %j", (kind, ids) => {
    const bare = { ...kit, sources: [] };
    expect(permitted(kind, TRIP, bare).map((one) => one.id)).toEqual(ids);
  });
  it("says why a place is barred", () => {
    expect(barredAt("swap", ITEMS[1] as Item, kit)).toBe("no hand is free");
    expect(barredAt("swap", ITEMS[4] as Item, kit)).toBe("you sleep");
    expect(barredAt("copy", ITEMS[3] as Item, kit)).toBe("copying wants a stop");
  });
  it("starts, stops and chargers hung elsewhere are not moved", () => {
    expect(movable(move({ kind: "start", unit: "" }))).toBeNull();
    expect(movable(move({ kind: "plug", unit: "" }))).toBeNull();
    expect(movable(move({ kind: "copy", unit: "" }))).toBe("copy");
  });
  it("a swap leaves the battery in where it was and swaps it there", () => {
    expect(withMoved(plan({}), move({}), "saddle").swaps).toEqual([
      { camera: "chin", item: "camp", battery: null, when: "arrival" },
      { camera: "chin", item: "saddle", battery: "a2", when: "arrival" },
    ]);
    expect(withMoved(plan({}), move({}), "camp")).toEqual(plan({}));
  });
  it("a plug is kept from one stop and wanted at the other, and can be forgotten", () => {
    const moved = withMoved(plan({}), move({ kind: "plug" }), "saddle");
    expect(moved.plugs).toEqual([
      { unit: "a2", item: "camp", plug: false },
      { unit: "a2", item: "saddle", plug: true },
    ]);
    expect(withPlug(moved, "a2", "camp", null).plugs).toHaveLength(1);
  });
  it("a copy goes along with what is done after it", () => {
    const copies = [
      {
        camera: "chin",
        card: null,
        item: "camp",
        drive: "d",
        by: "cable" as const,
        side_files: true,
        wipe: "anyway" as const,
      },
    ];
    expect(withMoved(plan({ copies }), move({ kind: "copy" }), "saddle").copies).toEqual([
      { ...copies[0], item: "saddle" },
    ]);
  });
  it("a battery fitted at the start is in no other camera", () => {
    const first = withFitted(plan({}), "boom", "a2");
    const cameras = withFitted(first, "chin", "a2").cameras;
    expect(cameras.map((one) => [one.camera, one.battery])).toEqual([
      ["boom", null],
      ["chin", "a2"],
    ]);
  });
});

describe("stretches", () => {
  const on = (item: string, part: Partial<Assignment> = {}) => ({ ...asked, item, ...part });
  const made = plan({ assignments: [on("climb"), on("saddle"), on("night", { mode: "other" })] });
  it("are legs and stops in a row that are recorded in one way", () => {
    expect(stretchesOf(TRIP, made, asked.camera)).toEqual([
      { camera: asked.camera, first: 1, last: 2, earliest: 0, latest: 3 },
      { camera: asked.camera, first: 4, last: 4, earliest: 3, latest: 4 },
    ]);
  });
  it.each([
    [0, 3, ["climb", "saddle", "night", "camp", "walk"]],
    [2, 2, ["saddle", "night"]],
    [1, 2, ["climb", "saddle", "night"]],
  ])("pulled from %i to %i ask %j", (first, last, items) => {
    const [stretch] = stretchesOf(TRIP, made, asked.camera);
    if (stretch === undefined) throw new Error("no stretch");
    const after = withStretch(TRIP, made, stretch, first, last);
    expect(after.assignments.map((one) => one.item)).toEqual(items);
  });
});

describe("what a change gains and costs", () => {
  const told = (filmedMs: number, part: Partial<Rehearsal> = {}): Rehearsal => ({
    ...REHEARSAL,
    coverage: [
      { by: "importance", key: "must", asked_ms: 3_600_000, filmed_ms: filmedMs, kept_ms: 0 },
    ],
    cameras: [cameraResult("chin", { hottest_c: 40 + filmedMs / 60_000 })],
    ...part,
  });
  const name = (camera: string) => camera;
  it("is told in minutes by importance, energy, mass, bytes, degrees, looking through, swaps", () => {
    const later = told(1_800_000, {
      ledgers: {
        ...REHEARSAL.ledgers,
        energy_used_wh: REHEARSAL.ledgers.energy_used_wh + 2.04,
        bytes_written: REHEARSAL.ledgers.bytes_written + 12e9,
      },
      looking_through_ms: REHEARSAL.looking_through_ms + 5_400_000,
      moves: [...REHEARSAL.moves, move({})],
    });
    expect(differenceText(told(0), later, name, 38)).toBe(
      "+30 min must · +2.0 W h · +38 g · +12 GB · chin 40 to 70 °C · +1 h 30 to look through · 1 swap more",
    );
    expect(differenceText(later, told(0), name)).toContain(
      "\u221230 min must · \u22122.0 W h · 0 g",
    );
  });
  it("nothing is plus or minus nothing", () => {
    expect(differenceText(told(0), told(0), name)).toBe("±0 min · ±0 W h · 0 g");
  });
});

describe("problems in order of time", () => {
  it("are gaps and findings with a place on the board, each cell's finding once", () => {
    const [first] = REHEARSAL.items;
    const finding = (camera: string | null, item: string | null) => ({
      code: "x",
      severity: "warn" as const,
      path: "plan",
      camera,
      item,
      values: {},
      harm: false,
      curable: false,
      text: "x",
    });
    const findings = [
      finding("boom", first?.id ?? ""),
      finding("boom", first?.id ?? ""),
      finding(null, null),
    ];
    const all = problemsOf({ ...REHEARSAL, findings });
    const gaps = REHEARSAL.cameras.flatMap((one) => one.losses).length;
    expect(all).toHaveLength(gaps + 1);
    expect(all.map((one) => one.ms)).toEqual(all.map((one) => one.ms).sort((a, b) => a - b));
  });
});

it("a shorter night loses the sleep that no longer fits", () => {
  const night = ITEMS[4] as Stop;
  expect(withDuration(night, 7200)).toMatchObject({ duration_s: 7200, timed_by: "hand" });
  expect((withDuration(night, 1800) as Stop).asleep).toBeNull();
});
