import { describe, expect, it } from "vitest";
import { HIGH_LEG, LOW_LEG, ON_WAY, TARN, WAY } from "../testing/routeSamples";
import { DOCUMENT } from "../testing/samples";
import { legAfter, scaleBar, withoutWay, withoutWays, withTrack, withTrackBehind } from "./track";
import type { Item, TrackLaid } from "./types";

const LAID: TrackLaid = {
  name: "Way",
  items: [LOW_LEG],
  place: { latitude: 46, longitude: 8, height_m: 1000 },
  started_at: null,
  way: WAY,
  notes: [],
};

describe("a track into the trip", () => {
  const doc = { trip: DOCUMENT.trip, plan: DOCUMENT.plan };
  it("goes behind what is there and leaves the plan alone", () => {
    const after = withTrackBehind(doc, { laid: LAID, behind: [HIGH_LEG] });
    expect(after.trip.items.map((one) => one.id)).toEqual(["camp", "way", "high"]);
    expect(after.trip.ways).toEqual([WAY]);
    expect(after.plan).toBe(doc.plan);
  });
  it("in place of what is there takes along what was asked on it", () => {
    const after = withTrack({ ...doc, trip: ON_WAY }, LAID);
    expect(after.trip.items).toEqual([LOW_LEG]);
    expect(after.trip.ways).toEqual([WAY]);
    const { assignments, swaps, plugs, copies } = after.plan;
    expect([assignments, swaps, plugs, copies]).toEqual([[], [], [], []]);
    expect(after.plan.cameras).toEqual(doc.plan.cameras);
  });
  it("brings its place along, but for a trip that has one and goes on", () => {
    const read = { laid: LAID, behind: [HIGH_LEG] };
    const placed = { ...doc, trip: { ...doc.trip, place: { ...LAID.place, latitude: 1 } } };
    expect(withTrackBehind(placed, read).trip.place?.latitude).toBe(1);
    expect(withTrack(placed, LAID).trip.place).toEqual(LAID.place);
    const nowhere = { ...doc, trip: { ...doc.trip, place: null } };
    expect(withTrackBehind(nowhere, read).trip.place).toEqual(LAID.place);
  });
});

describe("ways", () => {
  it("are left out where only a rehearsal is wanted, and legs stay the same objects", () => {
    const bare = withoutWays(ON_WAY);
    expect(bare.ways).toEqual([]);
    expect(bare.items.every((one) => one.on_way === null)).toBe(true);
    expect(withoutWays({ ...ON_WAY, name: "other" }).items[0]).toBe(bare.items[0]);
    expect(withoutWays(DOCUMENT.trip)).toBe(DOCUMENT.trip);
  });
  it("can be forgotten, and the legs stay", () => {
    const after = withoutWay(ON_WAY, "pass");
    expect(after.ways).toEqual([]);
    expect(after.items.map((one) => [one.id, one.on_way])).toEqual([
      ["low", null],
      ["tarn", null],
      ["high", null],
    ]);
  });
  it("join legs that touch, over a stop, and no others", () => {
    const apart = { ...HIGH_LEG, on_way: { way: "pass", from_m: 2500, to_m: 4000 } };
    expect(legAfter(ON_WAY.items, LOW_LEG)).toBe(HIGH_LEG);
    expect(legAfter(ON_WAY.items, HIGH_LEG)).toBeNull();
    expect(legAfter([LOW_LEG, TARN, apart], LOW_LEG)).toBeNull();
    expect(legAfter([LOW_LEG, DOCUMENT.trip.items[1] as Item, HIGH_LEG], LOW_LEG)).toBeNull();
  });
});

describe("a scale bar", () => {
  it.each([
    [7300, 5000],
    [4999, 2000],
    [1000, 1000],
    [3, 2],
    [0.2, 1],
  ])("within %s m is %s m", (most, bar) => {
    expect(scaleBar(most)).toBe(bar);
  });
});
