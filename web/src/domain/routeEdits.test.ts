import { describe, expect, it } from "vitest";
import { DOCUMENT } from "../testing/samples";
import { withoutItem } from "./edits";
import {
  airFromText,
  asKind,
  freshItem,
  fromLocalField,
  heightAtEnd,
  itemKeys,
  localField,
  typedOver,
  usualAir,
  withActivity,
  withAir,
} from "./routeEdits";
import type { Leg, Stop } from "./types";

const [camp, way] = DOCUMENT.trip.items as [Stop, Leg];

describe("a new leg or stop", () => {
  it("begins in the air, the gloves and the height of the one before", () => {
    const leg = freshItem(DOCUMENT.trip, "leg", way);
    expect(leg).toMatchObject({
      kind: "leg",
      id: "leg",
      temp_start_c: 20,
      temp_end_c: 20,
      gloves: true,
      sun_share: 0.5,
      height_start_m: 1400,
      height_end_m: 1400,
      wet: "dry",
    });
  });
  it("has a key of its own", () => {
    const first = freshItem(DOCUMENT.trip, "stop", way);
    const trip = { ...DOCUMENT.trip, items: [...DOCUMENT.trip.items, first] };
    expect(itemKeys(trip)).not.toContain(freshItem(trip, "stop", first).id);
  });
  it("stands by itself at 15 degrees when nothing is before it", () => {
    const stop = freshItem(DOCUMENT.trip, "stop", undefined);
    expect(stop).toMatchObject({ kind: "stop", temp_start_c: 15, height_m: null, gloves: false });
  });
});

describe("another activity", () => {
  const fresh = freshItem(DOCUMENT.trip, "leg", undefined) as Leg;
  it("brings its usual airflow, unless one was typed", () => {
    expect(fresh).toMatchObject({ activity: "walk", air_mps: usualAir("walk") });
    const flown = withActivity(fresh, "flight");
    expect(flown.air_mps).toBe(9);
    expect(withActivity({ ...flown, air_mps: 14 }, "climb").air_mps).toBe(14);
    expect(withActivity(flown, "other").air_mps).toBe(0);
  });
});

describe("a leg made a stop and back", () => {
  it("keeps its name, length, air and moments", () => {
    const moments = [
      { name: "wave", count: 2, per_hour: null, seconds: 5, reaction_s: 1, importance: "must" },
    ] as Leg["moments"];
    const back = asKind(asKind({ ...way, moments }, "stop"), "leg");
    expect(back).toMatchObject({
      kind: "leg",
      id: way.id,
      name: way.name,
      duration_s: way.duration_s,
      temp_end_c: way.temp_end_c,
      moments,
      height_end_m: 1400,
    });
  });
  it("is the same when it is one already", () => {
    expect(asKind(camp, "stop")).toBe(camp);
    expect(asKind(way, "leg")).toBe(way);
  });
  it("a stop has no hands, air or activity", () => {
    const stop = asKind(way, "stop");
    for (const field of ["hands", "air_mps", "activity", "speed_mps"])
      expect(stop).not.toHaveProperty(field);
  });
});

describe("a leg or stop that goes", () => {
  it("takes what was planned on it along", () => {
    const plan = {
      ...DOCUMENT.plan,
      swaps: [{ camera: "chin", item: "way", battery: "a2", when: "arrival" as const }],
      plugs: [{ unit: "a2", item: "way", plug: true }],
      copies: [
        {
          item: "way",
          camera: "chin",
          card: null,
          drive: "disk",
          by: "cable" as const,
          side_files: true,
          wipe: "no" as const,
        },
      ],
    };
    const left = withoutItem({ trip: DOCUMENT.trip, plan }, "way");
    expect(left.trip.items).toEqual([camp]);
    const { assignments, swaps, plugs, copies } = left.plan;
    expect([assignments, swaps, plugs, copies]).toEqual([[], [], [], []]);
  });
  it("leaves what is planned elsewhere", () => {
    const left = withoutItem(DOCUMENT, "camp");
    expect(left.plan.assignments).toHaveLength(1);
  });
});

describe("times for a field", () => {
  it.each([
    ["2027-06-12T06:00", "2027-06-12T06:00:00"],
    ["2027-06-12 06:00", null],
    ["2027-6-12T06:00", null],
    ["", null],
  ])("%j is kept as %j", (text, kept) => {
    expect(fromLocalField(text)).toBe(kept);
  });
  it("are read back as they were typed", () => {
    const kept = fromLocalField("2027-06-12T06:05") ?? "";
    expect(localField(kept)).toBe("2027-06-12T06:05");
  });
  it("a height is that at the end", () => {
    expect([heightAtEnd(camp), heightAtEnd(way), heightAtEnd(undefined)]).toEqual([
      900,
      1400,
      null,
    ]);
  });
});

describe("the air of weather", () => {
  const told = (item: string, air_mps: number | null) => ({
    item,
    name: item,
    temp_start_c: 3,
    temp_end_c: 7,
    temp_doubt_k: 2.2,
    sky: 0.6,
    sky_doubt: 0.1,
    air_mps,
    air_doubt_mps: 1.5,
  });
  it("goes to the legs and stops that it is of, and says where from", () => {
    const after = withAir(DOCUMENT.trip, [told(way.id, 4.5), told("gone", 1)], "hours.csv");
    expect(after.items[0]).toBe(camp);
    expect(after.items[1]).toMatchObject({
      temp_start_c: 3,
      temp_end_c: 7,
      temp_doubt_k: 2.2,
      sky: 0.6,
      air_mps: 4.5,
      air_from: "hours.csv",
    });
  });
  it("leaves alone what was typed, until that is let go", () => {
    const typed = { ...way, ...typedOver(way, "temp"), temp_end_c: -9 };
    const trip = { ...DOCUMENT.trip, items: [camp, typed] };
    const after = withAir(trip, [told(way.id, 4.5)], "hours.csv").items[1] as Leg;
    expect(after).toMatchObject({ temp_end_c: -9, sky: 0.6, air_mps: 4.5, air_doubt_mps: 1.5 });
    expect(airFromText(after)).toBe("air by hours.csv, temperature typed");
    const freed = { ...DOCUMENT.trip, items: [{ ...after, typed: [] }] };
    expect(withAir(freed, [told(way.id, 4.5)], "x").items[0]?.temp_end_c).toBe(7);
    expect(airFromText(camp)).toBe("");
  });
  it("leaves a stop without airflow", () => {
    const after = withAir(DOCUMENT.trip, [told(camp.id, null)], "x");
    expect(after.items[0]).not.toHaveProperty("air_mps");
  });
});
