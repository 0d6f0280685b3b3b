import { describe, expect, it } from "vitest";
import { LOW_LEG, ON_WAY, TARN, TOLD } from "../../testing/routeSamples";
import { DOCUMENT, REHEARSAL } from "../../testing/samples";
import type { ItemTold } from "../../domain/types";
import { rowPictures, scalesOf, stripLanes } from "./rowPictures";

describe("the route's picture", () => {
  const pictures = rowPictures(ON_WAY.items, TOLD, REHEARSAL.light);
  it("ground, warmth, air and sun have one scale over the trip, doubt included", () => {
    const cold = { ...TARN, temp_start_c: -4, temp_end_c: -4, temp_doubt_k: 3 };
    const scales = scalesOf([{ ...LOW_LEG, air_mps: 7, air_doubt_mps: 2 }, cold], TOLD);
    expect(scales.ground).toEqual([1000, 1400]);
    expect(scales.warm).toEqual([-7, 15]);
    expect([scales.mostAir, scales.mostSun]).toEqual([9, 400]);
    expect(scalesOf(DOCUMENT.trip.items, null).ground).toBeNull();
  });
  it("flat ground is not blown up to a mountain", () => {
    const flat = { ...TOLD, items: [{ ...(TOLD.items[0] as ItemTold), height_m: [40, 42] }] };
    expect(scalesOf(ON_WAY.items, flat).ground).toEqual([-9, 91]);
  });
  it("legs share one scale of time; short ones and nights are marked as not to scale", () => {
    const long = { ...LOW_LEG, duration_s: 36_000 };
    const night = { ...TARN, duration_s: 36_000 };
    const [leg, stop] = rowPictures([long, night], null, []);
    expect([leg?.height, leg?.stretched]).toEqual([600 * 0.58, false]);
    expect([stop?.height, stop?.stretched]).toEqual([120, true]);
    expect(pictures[1]).toMatchObject({ height: 46, stretched: true });
  });
  it("light is cut to the row, and left out before the route is told", () => {
    const light = [
      { start_ms: 0, end_ms: 900_000, kind: "night" as const },
      { start_ms: 900_000, end_ms: 9e6, kind: "day" as const },
    ];
    expect(rowPictures(ON_WAY.items, TOLD, light)[0]?.light).toEqual([
      { from: 0, to: 0.5, kind: "night" },
      { from: 0.5, to: 1, kind: "day" },
    ]);
    expect(rowPictures(ON_WAY.items, null, light)[0]?.light).toEqual([]);
  });
  it.each([390, 640, 1208])("lanes never overlap on a page of %s px", (width) => {
    const lanes = stripLanes(width);
    const edges = [lanes.clock, lanes.ground, lanes.warm, lanes.air, lanes.sun].flat();
    expect(edges).toEqual([...edges].sort((a, b) => a - b));
    expect(lanes.width).toBeLessThan(width < 640 ? 240 : 760);
  });
});
