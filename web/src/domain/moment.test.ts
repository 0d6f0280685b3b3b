import { describe, expect, it } from "vitest";
import { COURSE, cameraResult, DOCUMENT, loss, REHEARSAL } from "../testing/samples";
import { LAPEL } from "../testing/beside";
import { clockOf } from "./clock";
import {
  batteryIn,
  findingPlace,
  firstAfter,
  lossesInOrder,
  momentOf,
  nameOfCamera,
} from "./moment";
import { pilesOf, portsAt, unitsAt, worstLoss } from "./carried";
import { cardsAt } from "./written";
import { cellSentence } from "./sentences";
import type { Camera } from "./types";

describe("a moment of a course", () => {
  it("lies straight between two rows", () => {
    expect(momentOf(COURSE, 50_000)).toEqual({
      cellC: 30,
      held: 0.005,
      charge: 0.75,
      bodyC: 40,
      usedBytes: 500_000,
      state: 3,
    });
  });
  it("is the first row before it begins and the last after it ends", () => {
    expect(momentOf(COURSE, -5)?.charge).toBe(1);
    expect(momentOf(COURSE, 999_999)?.bodyC).toBe(70);
  });
  it("is nothing without rows", () => {
    expect(
      momentOf(
        { t_ms: [], charge: [], body_c: [], cell_c: [], held: [], used_bytes: [], state: [] },
        0,
      ),
    ).toBeNull();
  });
  it.each([
    [-1, 0],
    [0, 1],
    [99_999, 1],
    [100_000, 2],
    [999_999, 3],
  ])("the first row after %i is %i", (ms, index) => {
    expect(firstAfter(COURSE.t_ms, ms)).toBe(index);
  });
});

describe("what is carried", () => {
  it("a battery in a camera has the camera's charge, one in the bag its own", () => {
    const [a1, a2] = unitsAt(REHEARSAL.batteries, REHEARSAL.cameras, 3_300_000);
    expect(a1).toMatchObject({ place: "chin", level: 0.5 });
    expect(a2?.place).toBe("bag");
    expect(a2?.level).toBeCloseTo(1 - (0.1 * 3_300_000) / 5_400_000);
  });
  it("a card has the bytes used so far", () => {
    const [k1] = cardsAt(DOCUMENT, REHEARSAL, 3_300_000);
    expect(k1?.level).toBe(10e9);
  });
  it("what would be lost is told by the hour", () => {
    expect(worstLoss(REHEARSAL, 1_800_000).ms).toBe(0);
    expect(worstLoss(REHEARSAL, 3_700_000)).toEqual({ place: "k1", ms: 1_800_000 });
  });
  it("a spare in the bag has the temperature of its own course", () => {
    const [, a2] = unitsAt(REHEARSAL.batteries, REHEARSAL.cameras, 2_700_000);
    expect(a2).toMatchObject({ place: "bag", cellC: 7 });
    expect(a2?.level).toBeCloseTo(0.95);
  });
  it("batteries are piled by where they lie", () => {
    const units = unitsAt(REHEARSAL.batteries, REHEARSAL.cameras, 2_700_000);
    const piles = pilesOf(DOCUMENT.kit, REHEARSAL, units);
    expect(piles.map((pile) => [pile.name, pile.units.map((one) => one.name)])).toEqual([
      ["in cameras", ["A1"]],
      ["bag", ["A2"]],
    ]);
  });
  it("a port holds what was last put on it", () => {
    const hung = [
      { at_ms: 10, port: 1, unit: "dock" },
      { at_ms: 50, port: 1, unit: "" },
    ];
    const source = { id: "s", name: "S", kind: "bank", ports: 2, given_wh: 0, bank: null, hung };
    expect([5, 20, 60].map((at) => portsAt(source, at)[1])).toEqual([null, "dock", null]);
  });
  it("the battery in a camera is found by time", () => {
    expect(batteryIn(REHEARSAL, "chin", 0)?.name).toBe("A1");
    expect(batteryIn(REHEARSAL, "chin", 9e9)).toBeUndefined();
  });
});

it("losses stand in the order of time over all cameras", () => {
  const cameras = [
    cameraResult("one", { losses: [loss("one", "b", 500), loss("one", "a", 100)] }),
    cameraResult("two", { losses: [loss("two", "a", 300)] }),
  ];
  expect(lossesInOrder({ ...REHEARSAL, cameras }).map((one) => one.start_ms)).toEqual([
    100, 300, 500,
  ]);
});

it.each([
  ["kit.batteries[4]", "kit"],
  ["trip.items[3].hands", "route"],
  ["plan.assignments[2].mode", "board"],
])("the finding at %s leads to the %s", (path, place) => {
  expect(findingPlace(path)).toBe(place);
});

it("a camera that is gone is called by its key", () => {
  expect(nameOfCamera(DOCUMENT, "chin")).toBe("Chin");
  expect(nameOfCamera(DOCUMENT, "gone")).toBe("gone");
});

describe("a cell in words", () => {
  const clock = clockOf("UTC", REHEARSAL.start_utc);
  const camera = DOCUMENT.kit.cameras[0] as Camera;
  const [camp, way] = REHEARSAL.items;
  it("says mode, battery, minutes and why some are missing", () => {
    expect(way && cellSentence(DOCUMENT, REHEARSAL, clock, camera, way)).toBe(
      "Chin, way, 06:30 to 07:30, must. Rolled 4K 30 on A1, 100 to 0 per cent. " +
        "Filmed 50 min of 1 h 00; 10 min missing: A1 empty at 07:20.",
    );
  });
  it("says what is dead with it, where that is, and nothing of what serves no camera", () => {
    const told = { ...REHEARSAL, gear: [LAPEL, { ...LAPEL, id: "drone", serves: null }] };
    expect(way && cellSentence(DOCUMENT, told, clock, camera, way)).toContain(
      "at 07:20; Lapel empty at 07:15, 15 min without sound.",
    );
    const later = LAPEL.gaps.map((one) => ({ ...one, start_ms: 5_400_000, end_ms: 6_000_000 }));
    const after = { ...REHEARSAL, gear: [{ ...LAPEL, gaps: later }] };
    expect(way && cellSentence(DOCUMENT, after, clock, camera, way)).not.toContain("Lapel");
  });
  it("says what the hands do where nothing is asked", () => {
    expect(camp && cellSentence(DOCUMENT, REHEARSAL, clock, camera, camp)).toBe(
      "Chin, camp, 06:00 to 06:30: not asked. Hands: roll 4K30.",
    );
  });
});
