import { describe, expect, it } from "vitest";
import { DOCUMENT } from "../testing/samples";
import type { Camera, Move } from "../domain/types";
import { fitted } from "../scale/labels";
import { movesIn, workHeights, workLines } from "./workLines";

const CAMP = { id: "camp", startMs: 0, endMs: 10 };

function move(camera: string, kind: Move["kind"], text: string, item = "camp"): Move {
  return { at_ms: 0, end_ms: 0, item, camera, kind, text, takes_out: "", puts_in: "", unit: "" };
}

const MOVES = [
  move("chin", "stop", "stop"),
  move("boom", "stop", "stop"),
  move("chin", "swap", "A3 → A2"),
  move("chin", "start", "roll 4K30"),
  move("boom", "start", "takes 4K30"),
  move("chin", "stop", "stop", "hut"),
];

describe("the hands' work of a stop", () => {
  it("is numbered across the board in the order of doing", () => {
    expect(workLines(movesIn(MOVES, CAMP))).toMatchObject([
      { number: 1, camera: "chin", text: "stop" },
      { number: 2, camera: "boom", text: "stop · takes" },
      { number: 3, camera: "chin", text: "A3 → A2" },
      { number: 4, camera: "chin", text: "roll" },
    ]);
  });
  it("joins a stop and a start of the same camera when nothing lies between", () => {
    expect(
      workLines([move("chin", "stop", "stop"), move("chin", "start", "roll 4K30")]),
    ).toMatchObject([{ number: 1, camera: "chin", text: "stop · roll" }]);
  });
  it("keeps apart a stop and a start an hour later, and the work of an evening from the morning's", () => {
    const hour = 3_600_000;
    const late = { ...move("chin", "start", "roll 4K30"), at_ms: hour, end_ms: hour };
    const two = [move("chin", "stop", "stop"), late];
    expect(workLines(two).map((line) => line.text)).toEqual(["stop", "roll"]);
    expect(movesIn(two, { id: "camp", startMs: 0, endMs: 1000 })).toHaveLength(1);
    expect(movesIn(two, { id: "camp", startMs: 1000, endMs: 2 * hour })).toEqual([late]);
  });
  it("takes as many lines as its busiest camera", () => {
    const chin = DOCUMENT.kit.cameras[0] as Camera;
    const heights = workHeights(MOVES, [chin, { ...chin, id: "boom" }]);
    expect(heights.get("camp")).toBe(3);
    expect(heights.get("hut")).toBe(1);
    expect(heights.get("nowhere")).toBeUndefined();
  });
});

it("several batteries into one charger at a stop are one line", () => {
  const plug = (unit: string, into: string): Move => ({
    at_ms: 0,
    end_ms: 1,
    item: "hut",
    camera: "chin",
    kind: "plug",
    takes_out: unit,
    unit,
    puts_in: into,
    text: `plug ${unit}`,
  });
  const lines = workLines([plug("A1", "Dock"), plug("A4", "Dock"), plug("Slab", "Socket")]);
  expect(lines.map((line) => line.text)).toEqual(["plug A1, A4", "plug Slab"]);
});

it("a line is cut to its gutter", () => {
  expect(fitted("copy to Pit laptop", 80)).toBe("copy to Pit…");
  expect(fitted("stop", 80)).toBe("stop");
});
