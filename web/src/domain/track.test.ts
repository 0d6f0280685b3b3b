import { describe, expect, it } from "vitest";
import { DOCUMENT } from "../testing/samples";
import { freshItem } from "./routeEdits";
import { hereAt, scaleBar, withTrack } from "./track";
import type { TrackLaid } from "./types";

const LEG = { ...freshItem(DOCUMENT.trip, "leg", undefined), id: "climb-1" };
const LAID: TrackLaid = {
  name: "Way",
  items: [LEG],
  place: { latitude: 46, longitude: 8, height_m: 1000 },
  started_at: null,
  timed: false,
  length_m: 4000,
  ascent_m: 100,
  descent_m: 0,
  picture: {
    x_m: [0, 10, 20, 30, 40],
    y_m: [0, 1, 2, 3, 4],
    along_m: [0, 1000, 2000, 3000, 4000],
    height_m: [1000, 1025, 1050, 1075, 1100],
    starts_m: [0, 2000],
  },
  notes: [],
};

describe("a track into the trip", () => {
  const doc = { trip: DOCUMENT.trip, plan: DOCUMENT.plan };
  it("goes behind what is there and leaves the plan alone", () => {
    const after = withTrack(doc, LAID, false);
    expect(after.trip.items.map((one) => one.id)).toEqual([
      ...doc.trip.items.map((one) => one.id),
      "climb-1",
    ]);
    expect(after.plan).toBe(doc.plan);
  });
  it("in place of what is there takes along what was asked on it", () => {
    const after = withTrack(doc, LAID, true);
    expect(after.trip.items).toEqual([LEG]);
    expect([after.plan.assignments, after.plan.swaps, after.plan.copies]).toEqual([[], [], []]);
    expect(after.plan.cameras).toEqual(doc.plan.cameras);
  });
  it("gives the trip a place only when it has none", () => {
    const placed = { ...doc, trip: { ...doc.trip, place: { ...LAID.place, latitude: 1 } } };
    expect(withTrack(placed, LAID, false).trip.place?.latitude).toBe(1);
    const nowhere = { ...doc, trip: { ...doc.trip, place: null } };
    expect(withTrack(nowhere, LAID, false).trip.place).toEqual(LAID.place);
  });
});

describe("a place along the way", () => {
  it("is on the same leg in both pictures", () => {
    expect(hereAt(LAID, 0)).toEqual({ x: 0, y: 0, along: 0, height: 1000, leg: 0 });
    expect(hereAt(LAID, 0.5)).toMatchObject({ x: 20, height: 1050, leg: 1 });
    expect(hereAt(LAID, 1)).toMatchObject({ along: 4000, leg: 1 });
  });
  it.each([
    [7300, 5000],
    [4999, 2000],
    [1000, 1000],
    [3, 2],
    [0.2, 1],
  ])("a scale bar within %s m is %s m", (most, bar) => {
    expect(scaleBar(most)).toBe(bar);
  });
});
