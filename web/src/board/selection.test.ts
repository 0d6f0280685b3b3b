import { describe, expect, it } from "vitest";
import { DOCUMENT, REHEARSAL } from "../testing/samples";
import type { Move } from "../domain/types";
import { elastic } from "../scale/elastic";
import { movePlaces, nearestBand } from "./gripPlaces";
import { cellsBetween, toggled } from "./selection";

const ROWS = ["a", "b", "c"];
const CAMERAS = ["chin", "boom"];

describe("several cells", () => {
  it("between two are all of the rectangle, the first one first", () => {
    const from = { camera: "boom", item: "c" };
    const cells = cellsBetween(ROWS, CAMERAS, from, { camera: "chin", item: "b" });
    expect(cells[0]).toEqual(from);
    expect(cells.map((one) => one.item + one.camera).sort()).toEqual([
      "bboom",
      "bchin",
      "cboom",
      "cchin",
    ]);
  });
  it("one is put in, and taken out again", () => {
    const one = { camera: "chin", item: "a" };
    const two = { camera: "boom", item: "b" };
    expect(toggled(toggled([one], two), one)).toEqual([two]);
  });
});

describe("where work is drawn", () => {
  const whole = { startMs: 0, endMs: REHEARSAL.duration_ms };
  const stop = REHEARSAL.items.find((one) => one.kind === "stop");
  const scale = elastic(REHEARSAL.items, whole, "day", new Map([[stop?.id ?? "", 50]]));
  const move = (kind: Move["kind"], text: string): Move => ({
    at_ms: 0,
    end_ms: 0,
    item: stop?.id ?? "",
    camera: DOCUMENT.kit.cameras[0]?.id ?? "",
    alone: false,
    kind,
    takes_out: "",
    puts_in: "",
    unit: "a2",
    text,
  });
  it("each movable piece stands at its line", () => {
    const moves = [move("stop", "stop"), move("swap", "A1 → A2")];
    const places = movePlaces(moves, moves[0]?.camera ?? "", scale, (one) => one.kind === "swap");
    const band = scale.bands.find((one) => one.id === stop?.id);
    expect(places).toEqual([{ move: moves[1], number: 2, y: (band?.y0 ?? 0) + 5 + 17 }]);
  });
  it("the nearest of a few bands is found from any height", () => {
    const some = REHEARSAL.items.filter((one) => one.kind === "stop");
    expect(nearestBand(some, scale, -50)?.id).toBe(some[0]?.id);
    expect(nearestBand(some, scale, scale.height + 50)?.id).toBe(some.at(-1)?.id);
  });
});
