import { describe, expect, it } from "vitest";
import { DOCUMENT, powered, REHEARSAL } from "../testing/samples";
import { pilesOf, portsAt, unitsAt, valueAt, worstLoss } from "./carried";
import { cardsAt } from "./written";
import type { Pooled, SourceTold } from "./types";

const MIN = 60_000;

describe("a value between the rows of a column", () => {
  it.each([
    [-5, 10],
    [0, 10],
    [50, 15],
    [100, 20],
    [250, 0],
    [900, 0],
  ])("at %i is %f", (at, value) => {
    expect(valueAt([0, 100, 200], [10, 20, 0], at)).toBeCloseTo(value);
  });
  it("without rows is nothing", () => {
    expect(valueAt([], [], 5)).toBe(0);
  });
});

describe("units at a moment", () => {
  it("a battery in a camera has the camera's charge and its cell's temperature", () => {
    const [a1] = unitsAt(REHEARSAL.batteries, REHEARSAL.cameras, 55 * MIN);
    expect(a1).toMatchObject({ name: "A1", place: "chin" });
    expect(a1?.level).toBeCloseTo(0.5);
    expect(a1?.cellC).toBeCloseTo(31);
  });
  it("one in the bag has its own rows", () => {
    const a2 = unitsAt(REHEARSAL.batteries, REHEARSAL.cameras, 45 * MIN)[1];
    expect(a2).toMatchObject({ place: "bag" });
    expect(a2?.level).toBeCloseTo(0.95);
    expect(a2?.cellC).toBeCloseTo(7);
  });
  it("a card in a camera fills with what it films", () => {
    const [k1] = cardsAt(DOCUMENT, REHEARSAL, 55 * MIN);
    expect(k1?.level).toBeCloseTo(10e9);
    expect(k1?.cellC).toBeNull();
  });
  it("a card in the bag is as it was left", () => {
    const card = REHEARSAL.cards[0] as Pooled;
    const stays = [
      { place: "chin", start_ms: 0, end_ms: 600_000, level_start: 0, level_end: 5e9 },
      { place: "bag", start_ms: 600_000, end_ms: 5_400_000, level_start: 5e9, level_end: 5e9 },
    ];
    const [k1] = cardsAt(DOCUMENT, { ...REHEARSAL, cards: [{ ...card, stays }] }, 700_000);
    expect(k1).toMatchObject({ place: "bag", level: 5e9 });
  });
  it("a unit that never lay anywhere is in the bag with nothing in it", () => {
    const card = { ...(REHEARSAL.cards[0] as Pooled), stays: [] };
    expect(cardsAt(DOCUMENT, { ...REHEARSAL, cards: [card] }, 0)[0]).toMatchObject({
      place: "bag",
      level: 0,
    });
  });
});

describe("piles", () => {
  const kit = powered(DOCUMENT.kit);
  const unit = (id: string, place: string) => ({
    id,
    name: id,
    place,
    level: 1,
    size: 5,
    cellC: 20,
  });
  it("go from cameras over pockets and chargers to the bag, the empty ones left out", () => {
    const units = [
      unit("w", "bag"),
      unit("x", "dock/2"),
      unit("y", "vest"),
      unit("z", "chin"),
      unit("v", "dock/1"),
    ];
    const piles = pilesOf(kit, REHEARSAL, units);
    expect(piles.map((pile) => [pile.name, pile.units.map((one) => one.id)])).toEqual([
      ["in cameras", ["z"]],
      ["Vest", ["y"]],
      ["Dock", ["x", "v"]],
      ["bag", ["w"]],
    ]);
    expect(pilesOf(kit, REHEARSAL, [unit("y", "vest")])).toHaveLength(1);
  });
  it("every unit lies in just one", () => {
    const units = ["bag", "vest", "dock/1", "chin", "nowhere"].map((place) => unit(place, place));
    const piles = pilesOf(kit, REHEARSAL, units);
    expect(piles.flatMap((pile) => pile.units)).toHaveLength(units.length);
  });
});

describe("ports at a moment", () => {
  const source: SourceTold = {
    id: "slab",
    name: "Slab",
    kind: "bank",
    ports: 2,
    given_wh: 3,
    bank: null,
    hung: [
      { at_ms: 10, port: 0, unit: "dock" },
      { at_ms: 20, port: 1, unit: "chin" },
      { at_ms: 30, port: 0, unit: "" },
    ],
  };
  it.each([
    [5, [null, null]],
    [10, ["dock", null]],
    [25, ["dock", "chin"]],
    [40, [null, "chin"]],
  ])("at %i: %j", (at, hung) => {
    expect(portsAt(source, at)).toEqual(hung);
  });
});

describe("the worst single loss at a moment", () => {
  const told = {
    ...REHEARSAL,
    at_risk: [
      { place: "k1", by_hour_ms: [0, 5, 9] },
      { place: "disk", by_hour_ms: [0, 7, 2] },
    ],
  };
  it.each([
    [0, { place: "", ms: 0 }],
    [61 * MIN, { place: "disk", ms: 7 }],
    [150 * MIN, { place: "k1", ms: 9 }],
    [999 * MIN, { place: "", ms: 0 }],
  ])("at %i is %j", (at, loss) => {
    expect(worstLoss(told, at)).toEqual(loss);
  });
});
