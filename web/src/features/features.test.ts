import { describe, expect, it } from "vitest";
import { DOCUMENT } from "../testing/samples";
import type { Camera, Cord, Shelf } from "../domain/types";
import { shelfLayout, TOP } from "./kit/shelfLayout";

const CORD: Cord = {
  camera: "chin",
  mode: "m",
  set_up: "bare",
  minutes: 80,
  end: "empty",
  low_minutes: 70,
  high_minutes: 90,
  second_minutes: null,
  second_end: null,
  steady_c: 60,
  stop_c: 70,
  measured: false,
  draw_known: true,
  lasts_longest_leg: null,
};
const SHELF: Shelf = { cords: [CORD], longest: null, headline: "" };

describe("the shelf's layout", () => {
  it("hangs each mode under its camera", () => {
    const layout = shelfLayout(SHELF, DOCUMENT.kit, 1200);
    expect(layout.hooks).toHaveLength(1);
    const [plank] = layout.planks;
    expect(layout.hooks[0]?.x).toBeGreaterThan(plank?.x0 ?? 0);
    expect(layout.hooks[0]?.x).toBeLessThan(plank?.x1 ?? 0);
  });
  it("the longest range fills the height, an hour at least", () => {
    const layout = shelfLayout(SHELF, DOCUMENT.kit, 1200);
    expect(layout.maxMin).toBeCloseTo(90 * 1.02);
    expect(layout.y(0)).toBe(TOP);
    const short = { ...SHELF, cords: [{ ...CORD, minutes: 10, high_minutes: 12 }] };
    expect(shelfLayout(short, DOCUMENT.kit, 1200).maxMin).toBeGreaterThanOrEqual(60);
  });
  it("shows eight hours at most, also for a cord without end", () => {
    const endless = { ...SHELF, cords: [{ ...CORD, minutes: null, high_minutes: 5000 }] };
    expect(shelfLayout(endless, DOCUMENT.kit, 1200).maxMin).toBe(480);
  });
  it("keeps cords apart where the page is narrow", () => {
    const camera = DOCUMENT.kit.cameras[0] as Camera;
    const modes = Array.from(
      { length: 8 },
      (_, n) => ({ ...camera.modes[0], id: `m${String(n)}` }) as Camera["modes"][number],
    );
    const kit = { ...DOCUMENT.kit, cameras: [{ ...camera, modes }] };
    const cords = modes.map((mode) => ({ ...CORD, mode: mode.id }));
    const layout = shelfLayout({ ...SHELF, cords }, kit, 300);
    const xs = layout.hooks.map((hook) => hook.x);
    expect(Math.min(...xs.slice(1).map((x, place) => x - (xs[place] ?? 0)))).toBeGreaterThanOrEqual(
      58,
    );
    expect(layout.width).toBeGreaterThan(300);
  });
});
