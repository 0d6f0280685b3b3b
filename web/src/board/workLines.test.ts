import { describe, expect, it } from "vitest";
import { cameraResult, DOCUMENT, loss, REHEARSAL } from "../testing/samples";
import type { Camera, Move } from "../domain/types";
import { fitted } from "../scale/labels";
import { lineTop, movesIn, stopWork, worded, wordHeights, workLines } from "./workLines";

const CAMP = { id: "camp", startMs: 0, endMs: 10 };

function move(camera: string, kind: Move["kind"], text: string, item = "camp"): Move {
  const of = { takes_out: "", puts_in: "", unit: "", alone: false };
  return { at_ms: 0, end_ms: 0, item, camera, kind, text, ...of };
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
      { number: 1, cameras: ["chin"], text: "stop" },
      { number: 2, cameras: ["boom"], text: "stop · takes 4K30" },
      { number: 3, cameras: ["chin"], text: "A3 → A2" },
      { number: 4, cameras: ["chin"], text: "roll 4K30" },
    ]);
  });
  it("takes no cable off where a copy goes by radio", () => {
    const ends = (text: string) => ({ ...move("chin", "copy_end", text), takes_out: "K1" });
    const lines = (text: string) => workLines([ends(text)]).map((one) => one.text);
    expect(lines("take the cable off Phone")).toEqual(["cable off"]);
    expect(lines("check that Phone has it all")).toEqual(["check that Phone has it all"]);
  });
  it("is one line where the same is done to several cameras in the same minute", () => {
    const lines = workLines([move("chin", "stop", "stop"), move("boom", "stop", "stop")]);
    expect(lines).toMatchObject([{ number: 1, cameras: ["chin", "boom"], text: "stop" }]);
    const chin = DOCUMENT.kit.cameras[0] as Camera;
    const three = [chin, { ...chin, id: "boom", name: "Boom" }, { ...chin, id: "camp" }];
    const [line] = lines;
    expect(line && worded(line, three).who).toBe("Chin, Boom");
    expect(line && worded({ ...line, cameras: ["chin", "boom", "camp"] }, three).who).toBe("all");
    const own = line && { ...line, cameras: ["chin"], text: "Chin to Bank" }; // its battery stays in
    expect(own && worded(own, three)).toEqual({ who: "Chin", what: "to Bank" });
  });
  it("is split into what is done on arrival and before leaving", () => {
    const hour = 3_600_000;
    const late = { ...move("chin", "start", "roll 4K30"), at_ms: hour, end_ms: hour };
    const part = { id: "camp", startMs: 0, endMs: hour };
    const work = stopWork([move("chin", "stop", "stop"), late], part);
    expect(work.leaving).toBe(1);
    expect(lineTop(work, 1) - lineTop(work, 0)).toBeGreaterThan(17);
    expect(stopWork([late], part).leaving).toBe(1);
  });
  it("joins a stop and a start of the same camera when nothing lies between", () => {
    expect(
      workLines([move("chin", "stop", "stop"), move("chin", "start", "roll 4K30")]),
    ).toMatchObject([{ number: 1, text: "stop · roll 4K30" }]);
  });
  it("keeps apart a stop and a start an hour later, and the work of an evening from the morning's", () => {
    const hour = 3_600_000;
    const late = { ...move("chin", "start", "roll 4K30"), at_ms: hour, end_ms: hour };
    const two = [move("chin", "stop", "stop"), late];
    expect(workLines(two).map((line) => line.text)).toEqual(["stop", "roll 4K30"]);
    expect(movesIn(two, { id: "camp", startMs: 0, endMs: 1000 })).toHaveLength(1);
    expect(movesIn(two, { id: "camp", startMs: 1000, endMs: 2 * hour })).toEqual([late]);
  });
  it("stands on one day only, also at the moment that parts two days", () => {
    const at = 1000;
    const noon = { ...move("chin", "swap", "A3 → A2"), at_ms: at };
    const after = { ...move("chin", "stop", "stop"), at_ms: 2 * at };
    const days = [
      { id: "camp", startMs: 0, endMs: at },
      { id: "camp", startMs: at, endMs: 2 * at },
    ];
    expect(days.map((one) => movesIn([noon, after], one).length)).toEqual([0, 2]);
  });
  it("needs room for its lines, and a leg for what is not filmed on it", () => {
    const losses = [loss("chin", "climb", 10), loss("chin", "climb", 20, { cause: "hot" })];
    const told = { ...REHEARSAL, moves: MOVES, cameras: [cameraResult("chin", { losses })] };
    const parts = ["camp", "climb", "none"].map((id) => ({ id, startMs: 0, endMs: 100 }));
    const needs = wordHeights(told, parts);
    expect(needs.get("camp")).toBeGreaterThanOrEqual(4 * 17);
    expect(needs.get("climb")).toBeGreaterThanOrEqual(4 * 17);
    expect(needs.get("none")).toBe(0);
  });
});

it("several batteries into one charger at a stop are one line", () => {
  const plug = (unit: string, into: string, alone = true): Move => ({
    at_ms: 0,
    end_ms: 1,
    item: "hut",
    camera: "chin",
    alone,
    kind: "plug",
    takes_out: unit,
    unit,
    puts_in: into,
    text: `plug ${unit}`,
  });
  const lines = workLines([plug("A1", "Dock"), plug("A4", "Dock"), plug("Slab", "Socket")]);
  expect(lines.map((line) => line.text)).toEqual(["A1, A4 to Dock", "Slab to Socket"]);
  // what comes out of a camera is that camera's work; what lies about is nobody's
  const out = workLines([plug("A1", "Dock", false), plug("A4", "Dock"), plug("A5", "Dock")]);
  expect(out.map((line) => Object.values(worded(line, DOCUMENT.kit.cameras)))).toEqual([
    ["Chin", "A1 to Dock"],
    ["", "A4, A5 to Dock"],
  ]);
});

it("a line is cut to its gutter", () => {
  expect(fitted("copy to Pit laptop", 80)).toBe("copy to Pit…");
  expect(fitted("stop", 80)).toBe("stop");
});
