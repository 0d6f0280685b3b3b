import { describe, expect, it } from "vitest";
import { DOCUMENT } from "../testing/samples";
import {
  assignmentAt,
  cameraPlan,
  freshAssignment,
  freshKey,
  kitKeys,
  rolledEverywhere,
  moved,
  withAssignment,
  withCameraPlan,
  withInserted,
  withItem,
  withoutAssignment,
  withoutItem,
  withSwap,
} from "./edits";
import {
  copyName,
  familyIsFree,
  firstAsked,
  freshBattery,
  freshCard,
  freshFamily,
  freshMode,
  freshSetUp,
  nextLabel,
  resolutionName,
  withCopiedBattery,
  withCopiedCamera,
  withCopiedCard,
  withMemory,
  withModePart,
  withNewCamera,
} from "./kitEdits";
import { freshGear } from "./powerEdits";
import { withoutNamed } from "./refers";
import { asKind, freshItem, fromLocalField, heightAtEnd, localField } from "./routeEdits";
import type { Battery, BatteryFamily, Camera, Card, Item, Kit, Mode } from "./types";

const { plan, trip, kit } = DOCUMENT;
const camera = kit.cameras[0] as Camera;
const [camp, way] = trip.items as [Item, Item];
const EMPTY: Kit = {
  families: [],
  cameras: [],
  batteries: [],
  cards: [],
  pockets: [],
  chargers: [],
  sources: [],
  gear: [],
  loads: [],
  drives: [],
  serving: [],
};

describe("assignments", () => {
  it("a fresh one is asked as the camera's last was", () => {
    expect(freshAssignment(plan, camera, "camp")).toMatchObject({
      mode: "m",
      set_up: "bare",
      importance: "want",
      pattern: { kind: "roll" },
    });
  });
  it("one on the same camera and leg is replaced, any other is added", () => {
    const replaced = withAssignment(plan, {
      ...freshAssignment(plan, camera, "way"),
      importance: "nice",
    });
    expect(replaced.assignments).toHaveLength(1);
    expect(assignmentAt(replaced, "chin", "way")?.importance).toBe("nice");
    expect(withAssignment(plan, freshAssignment(plan, camera, "camp")).assignments).toHaveLength(2);
  });
  it("one is taken off", () => {
    expect(withoutAssignment(plan, "chin", "way").assignments).toEqual([]);
    expect(plan.assignments).toHaveLength(1); // the old plan is untouched
  });
});

describe("what a camera carries, and swaps", () => {
  it("a camera without a word of its own is off between stretches", () => {
    expect(cameraPlan(plan, "chin")).toMatchObject({
      between: "off",
      radio_left_on: false,
      battery: null,
    });
  });
  it("is put in and replaced", () => {
    const once = withCameraPlan(plan, { ...cameraPlan(plan, "chin"), battery: "a2" });
    const twice = withCameraPlan(once, { ...cameraPlan(once, "chin"), card: "k1" });
    expect(twice.cameras).toEqual([expect.objectContaining({ battery: "a2", card: "k1" })]);
  });
  it("a swap is set, left as it is, or given back to the policy", () => {
    const set = withSwap(plan, "chin", "camp", "a2");
    expect(set.swaps).toEqual([{ camera: "chin", item: "camp", battery: "a2", when: "arrival" }]);
    expect(withSwap(set, "chin", "camp", null).swaps[0]?.battery).toBeNull();
    expect(withSwap(set, "chin", "camp", undefined).swaps).toEqual([]);
  });
});

describe("legs and stops", () => {
  it("deleting one takes what was asked on it", () => {
    const asked = { trip, plan: withSwap(plan, "chin", "way", "a2") };
    const after = withoutItem(asked, "way");
    expect(after.trip.items.map((one) => one.id)).toEqual(["camp"]);
    expect(after.plan.assignments).toEqual([]);
    expect(after.plan.swaps).toEqual([]);
  });
  it("deleting one takes the rows of every list that names it, and no other", () => {
    const rows = [
      { item: "way", camera: "chin", gear: "mic", unit: "mic", drive: "d", to: "x" },
      { item: "camp", camera: "chin", gear: "mic", unit: "mic", drive: "d", to: "x" },
    ];
    const lists = ["assignments", "swaps", "card_swaps", "plugs", "gear", "copies"] as const;
    const full = { ...plan, ...Object.fromEntries(lists.map((one) => [one, rows])) };
    const after = withoutItem({ trip, plan: full }, "way").plan;
    for (const list of lists) expect(after[list], list).toEqual([rows[1]]);
    expect(withoutNamed(full, "power", () => true).plugs).toEqual(
      rows.map((one) => ({ ...one, to: null, place: null })),
    );
    const links = [{ cameras: ["chin", "boom", "camp"] }, { cameras: ["chin", "boom"] }];
    const apart = withoutNamed({ ...plan, links }, "camera", (one) => one === "chin");
    expect(apart.links).toEqual([{ cameras: ["boom", "camp"] }]);
  });
  it("a key of a new thing is none of the kit's, whatever list it stands in", () => {
    const gear = [{ id: "mic" }] as unknown as Kit["gear"];
    expect(freshKey("Mic", kitKeys({ ...EMPTY, gear }))).toBe("mic-2");
  });
  it("are changed, inserted and moved", () => {
    expect(withItem(trip, { ...way, name: "ridge" }).items[1]?.name).toBe("ridge");
    expect(withInserted(trip, 1, [{ ...way, id: "x" }]).items.map((one) => one.id)).toEqual([
      "camp",
      "x",
      "way",
    ]);
    expect(moved(["a", "b", "c"], 0, 2)).toEqual(["b", "c", "a"]);
  });
  it("a fresh one follows in the air and at the height of the one before", () => {
    const fresh = freshItem(trip, "stop", way);
    expect(fresh).toMatchObject({ kind: "stop", temp_start_c: 20, height_m: 1400, gloves: true });
    expect(freshItem(trip, "leg", undefined)).toMatchObject({
      kind: "leg",
      temp_start_c: 15,
      height_start_m: null,
    });
    expect(heightAtEnd(camp)).toBe(900);
  });
  it("a leg becomes a stop and back without losing its time and air", () => {
    const stop = asKind(way, "stop");
    expect(stop).toMatchObject({ kind: "stop", id: "way", duration_s: 3600, height_m: 1400 });
    expect(asKind(stop, "leg")).toMatchObject({ kind: "leg", duration_s: 3600, temp_end_c: 20 });
    expect(asKind(way, "leg")).toBe(way);
  });
  it("times go through a field and back", () => {
    expect(localField("2027-06-12T06:00:00")).toBe("2027-06-12T06:00");
    expect(fromLocalField("2027-06-12T06:00")).toBe("2027-06-12T06:00:00");
    expect(fromLocalField("tomorrow")).toBeNull();
  });
});

describe("keys and labels", () => {
  it.each([
    ["Chin Cam 2", [], "chin-cam-2"],
    ["Chin", ["chin"], "chin-2"],
    ["Chin", ["chin", "chin-2"], "chin-3"],
    ["???", [], "one"],
    ["Größe", [], "gr-e"],
  ])("%s with %j taken becomes %s", (name, taken, key) => {
    expect(freshKey(name, taken)).toBe(key);
  });
  it("labels take the first number that is free", () => {
    expect(nextLabel("A", ["A1", "A3"])).toBe("A2");
    expect(copyName("4K30", ["4K30", "4K30 2"])).toBe("4K30 3");
  });
});

describe("nothing asked yet", () => {
  it("one press lets every camera that can record roll on every leg, as a must", () => {
    const { trip, plan } = DOCUMENT;
    const legs = trip.items.filter((one) => one.kind === "leg");
    const made = rolledEverywhere(DOCUMENT.kit, trip, { ...plan, assignments: [] });
    expect(made.assignments).toHaveLength(legs.length * DOCUMENT.kit.cameras.length);
    expect(made.assignments.every((one) => one.importance === "must")).toBe(true);
    expect(new Set(made.assignments.map((one) => one.item))).toEqual(
      new Set(legs.map((one) => one.id)),
    );
    const bare = { ...DOCUMENT.kit.cameras[0], modes: [] } as Camera;
    expect(rolledEverywhere({ ...DOCUMENT.kit, cameras: [bare] }, trip, plan).assignments).toEqual(
      [],
    );
  });
});

describe("the kit", () => {
  it("a first camera comes with a family, a battery and a card, so that it runs", () => {
    const made = withNewCamera(EMPTY).kit;
    expect(made.families).toHaveLength(1);
    expect(made.batteries[0]?.family).toBe(made.cameras[0]?.battery_family);
    expect(made.cards).toHaveLength(1);
  });
  it("a second camera takes the first one's battery only where that is said", () => {
    const own = withNewCamera(kit).kit;
    expect(own.families).toHaveLength(2);
    expect(own.batteries.map((one) => one.name)).toEqual(["A1", "A2", "B1"]);
    const shared = withNewCamera(kit, { ...firstAsked(kit), family: "a" }).kit;
    expect(shared.families).toHaveLength(1);
    expect(shared.batteries.map((one) => one.name)).toEqual(["A1", "A2", "A3"]);
  });
  it("what nobody said of a new camera's minutes is not known", () => {
    const { kit: made } = withNewCamera(EMPTY, { ...firstAsked(EMPTY), minutes: null });
    const [mode] = made.cameras[0]?.modes ?? [];
    expect(mode).toMatchObject({ draw: { kind: "not_known" }, box_minutes: null });
  });
  it("a mode's name follows its figures until it is renamed", () => {
    const first = freshMode([]);
    expect(first.name).toBe("4K 30");
    expect(freshMode([first]).name).toBe("4K 30 2");
    const small = withModePart(first, { width_px: 1920, height_px: 1080 });
    expect(small.name).toBe("1080 30");
    expect(withModePart({ ...small, name: "108030" }, { fps: 60 }).name).toBe("1080 60");
    const dusk = withModePart(small, { name: "Dusk" });
    expect(withModePart(dusk, { fps: 24 })).toMatchObject({ name: "Dusk", fps: 24 });
  });
  it("a card goes into a memory that becomes fixed, and comes out again with its size", () => {
    const typed = withNewCamera(kit, { ...firstAsked(kit), gb: 29 });
    const fixed = withMemory(typed.kit, typed.camera, "fixed");
    expect(fixed.cameras[1]?.memory).toMatchObject({ kind: "fixed", gb: 29 });
    expect(fixed.cards).toEqual(kit.cards);
    expect(withMemory(fixed, typed.camera, "fixed")).toBe(fixed);
    const again = withMemory(fixed, typed.camera, "slot");
    expect(again.cameras[1]?.memory).toMatchObject({ kind: "slot", largest_gb: 512 });
    expect(again.cards.map((one) => one.gb)).toEqual([kit.cards[0]?.gb, 29]);
  });
  it("spare cards stay when a memory becomes fixed: they are nobody's in particular", () => {
    const spare = withCopiedCard(kit, kit.cards[0] as Card);
    const fixed = withMemory(spare, "chin", "fixed");
    expect(fixed.cameras[0]?.memory).toMatchObject({ kind: "fixed", gb: kit.cards[0]?.gb });
    expect(fixed.cards).toEqual(spare.cards);
  });
  it("a second thing of any kind has a key of its own", () => {
    const two = { ...kit, gear: [freshGear(kit)] };
    const more = freshGear(two);
    expect(more.id).not.toBe(two.gear[0]?.id);
    expect(more.name).toBe("microphone 2");
  });
  it("keys are never given twice over the whole kit", () => {
    let grown = EMPTY;
    for (let n = 0; n < 5; n += 1) grown = withNewCamera(grown).kit;
    const keys = [...grown.cameras, ...grown.batteries, ...grown.cards, ...grown.families].map(
      (one) => one.id,
    );
    expect(new Set(keys).size).toBe(keys.length);
  });
  it("a copied camera has a key and a name of its own and all its modes", () => {
    const { kit: after, camera: key } = withCopiedCamera(kit, "chin");
    expect(after.cameras[1]).toMatchObject({ id: key, name: "Chin 2", modes: camera.modes });
    expect(withCopiedCamera(kit, "gone").kit).toBe(kit);
  });
  it("fresh units do not repeat a name", () => {
    const family = kit.families[0] as BatteryFamily;
    expect(freshFamily(kit).name).toBe("B");
    expect(freshBattery(kit, family).name).toBe("A3");
    expect(freshCard(kit).name).toBe("K2");
    expect(freshMode(camera.modes).id).not.toBe("m");
    expect(freshSetUp(camera.set_ups).id).toBe("cased");
  });
  it("a copied battery or card keeps its state and takes the next label", () => {
    const worn = { ...(kit.batteries[0] as Battery), health: 0.8, charge: 0.5 };
    expect(withCopiedBattery(kit, worn).batteries.at(-1)).toEqual({
      id: "a3",
      name: "A3",
      family: "a",
      health: 0.8,
      charge: 0.5,
    });
    const used = { ...(kit.cards[0] as Card), used_bytes: 7 };
    expect(withCopiedCard(kit, used).cards.at(-1)).toMatchObject({ name: "K2", used_bytes: 7 });
  });
  it("a family may go when nothing takes it", () => {
    expect(familyIsFree(kit, "a")).toBe(false);
    expect(familyIsFree(kit, "b")).toBe(true);
  });
  it("resolutions are named, or told in pixels", () => {
    const mode = camera.modes[0] as Mode;
    expect(resolutionName(mode)).toBe("4K");
    expect(resolutionName({ ...mode, width_px: 1000, height_px: 500 })).toBe("1000 × 500");
  });
});
