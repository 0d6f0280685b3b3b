// @vitest-environment jsdom
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { type Mounted, mountCard } from "./card";
import { type Card, isUnderWay, lengthText, nextStop, placeAt, stopBefore, workAt } from "./now";
import { joined, lastTicked, localStore, readTicks, stateOf, type Tick, tickOf } from "./ticks";

type Place = Card["places"][number];

const START = Date.UTC(2027, 5, 12, 8, 0);
const MIN = 60_000;
const at = (minutes: number) => new Date(START + minutes * MIN);

const move = (key: string, number: number, takes_s: number, dear = false) => ({
  key,
  number,
  at_ms: 0,
  clock: "10:00",
  camera: "Chin",
  kind: "swap" as const,
  say: `${key} in`,
  where: `${key} is in the pack`,
  how: "",
  why: "for climb",
  takes_s,
  importance: "want" as const,
  dear,
});

const place = (
  item: string,
  from: number,
  to: number,
  free: boolean,
  moves: Card["places"][0]["moves"],
) => ({
  item,
  name: item,
  kind: free ? "stop" : "leg",
  day: "2027-06-12",
  start_ms: from * MIN,
  end_ms: to * MIN,
  start: "10:00",
  end: "10:10",
  hands_free: free,
  asleep: "",
  moves,
  spare_s: free ? (to - from) * 60 - moves.reduce((sum, one) => sum + one.takes_s, 0) : 0,
  leave_out: [...moves].sort((a, b) => Number(a.dear) - Number(b.dear)).map((one) => one.key),
  films: [],
  shots: [{ name: "a launch", count: 2, importance: "must" as const, on: "climb" }],
  cautions: free ? ["Below 0 °C, don't charge."] : [],
});

const CARD: Card = {
  trip: "Two ridges",
  revision: "abcd1234",
  start_utc: new Date(START).toISOString(),
  time_zone: "Etc/GMT-2",
  duration_ms: 130 * MIN,
  full_by: [{ unit: "a", at_ms: 5 * MIN, say: "a full by 10:05" }],
  places: [
    place("camp", 0, 10, true, [move("a", 1, 60, true), move("b", 2, 90)]),
    place("climb", 10, 100, false, []),
    place("col", 100, 130, true, [move("c", 1, 30)]),
  ],
};
const tick = (id: string, kind: Tick["kind"], of: string, minute: number): Tick => ({
  id,
  move: of,
  kind,
  at: at(minute).toISOString(),
  text: "",
});

describe("the clock of a card", () => {
  it("finds the place, the first before the trip and the last after it", () => {
    expect([-5, 0, 9, 10, 99, 100, 500].map((one) => placeAt(CARD, at(one)))).toEqual([
      0, 0, 0, 1, 1, 2, 2,
    ]);
    expect([isUnderWay(CARD, at(-1)), isUnderWay(CARD, at(0)), isUnderWay(CARD, at(130))]).toEqual([
      false,
      true,
      false,
    ]);
    expect([
      nextStop(CARD, 0),
      nextStop(CARD, 2),
      stopBefore(CARD, 2),
      stopBefore(CARD, 0),
    ]).toEqual([2, null, 0, null]);
  });
  it("says what is short and what to leave out first: not what must not be missed", () => {
    const camp = CARD.places[0];
    if (camp === undefined) throw new Error("no camp");
    expect(workAt(CARD, camp, [], at(0))).toMatchObject({ needs_s: 150, has_s: 600, leave: [] });
    const late = workAt(CARD, camp, [], at(8)); // 120 s left, 150 s of work
    expect(late.leave.map((one) => one.key)).toEqual(["b"]);
    expect(workAt(CARD, camp, [tick("1", "done", "a", 8)], at(8)).leave).toEqual([]);
    expect(workAt(CARD, camp, [], at(500))).toMatchObject({ has_s: 600 });
  });
  it.each([
    [40, "40 s"],
    [119, "119 s"],
    [120, "2 min"],
    [4200, "1 h 10"],
    [-3, "0 s"],
  ])("%i s are told as %s", (seconds, text) => expect(lengthText(seconds)).toBe(text));
});

describe("ticks", () => {
  const rows = [
    tick("1", "done", "a", 1),
    tick("2", "left_out", "b", 2),
    tick("3", "undone", "a", 3),
  ];
  it("hold by the last that was said, in order of time, however they came", () => {
    expect([...stateOf(rows)]).toEqual([["b", "left_out"]]);
    expect([...stateOf([...rows].reverse())]).toEqual([["b", "left_out"]]);
    expect(lastTicked(rows)?.id).toBe("2");
    expect(lastTicked([])).toBeNull();
  });
  it("come together once", () => {
    expect(joined(rows, [rows[1] as Tick, tick("4", "done", "c", 9)]).map((one) => one.id)).toEqual(
      ["1", "2", "3", "4"],
    );
    expect(new Set([1, 2, 3].map(() => tickOf("done", "a").id)).size).toBe(3);
  });
  it("are read from what a card saved, and nothing else", () => {
    expect(readTicks(JSON.stringify({ card: "x", ticks: rows }))).toEqual(rows);
    expect(readTicks(JSON.stringify(rows))).toEqual(rows);
    for (const bad of ["", "{", "[]", "[1]", '{"ticks":[{"id":"1"}]}', "null", '"x"'])
      expect(readTicks(bad)).toBeNull();
    expect(readTicks(JSON.stringify([{ ...rows[0], kind: "eaten" }]))).toBeNull();
  });
  it("are kept in the browser, and it is said when they cannot be", () => {
    const key = "tumbrel-test";
    const store = localStore(key);
    store.add(rows[0] as Tick);
    expect(localStore(key).all()).toEqual([rows[0]]);
    const broken = vi.spyOn(Storage.prototype, "setItem").mockImplementation(() => {
      throw new Error("full");
    });
    store.add(rows[1] as Tick);
    expect(store.all()).toHaveLength(2);
    expect(store.said()).toContain("keeps nothing");
    broken.mockRestore();
    localStorage.removeItem(key);
  });
});

describe("a card that is drawn", () => {
  let root: HTMLElement;
  let mounted: Mounted;
  let minutes = 0;
  beforeEach(() => {
    localStorage.clear();
    root = document.createElement("div");
    document.body.append(root);
    minutes = 0;
    const store = localStore("tumbrel-drawn");
    mounted = mountCard(root, {
      card: CARD,
      made: null,
      store,
      now: () => at(minutes),
      alone: true,
    });
  });
  afterEach(() => {
    mounted.end();
    root.remove();
  });
  const press = (name: string) => {
    const found = [...root.querySelectorAll("button")].find(
      (one) => (one.getAttribute("aria-label") ?? one.textContent) === name,
    );
    if (found === undefined) throw new Error(`no ${name}`);
    found.click();
  };
  const noteField = () => root.querySelector(".pocket-note") as HTMLInputElement;
  const type = (text: string) => {
    noteField().value = text;
    noteField().dispatchEvent(new Event("input"));
  };
  it("leads from move to move with Done, and takes every tap back", () => {
    expect(root.querySelector(".current b")?.textContent).toBe("Chin: a in");
    press("Done: Chin: a in");
    expect(root.querySelector(".current b")?.textContent).toBe("Chin: b in");
    expect(document.activeElement?.getAttribute("aria-label")).toBe("Done: Chin: b in");
    press("Leave out: Chin: b in");
    expect(root.querySelector(".current")).toBeNull();
    expect(root.querySelector("header")?.textContent).toContain("2 of 2 done");
    press("Undo last");
    expect(root.querySelector(".current b")?.textContent).toBe("Chin: b in");
    press("Undo: Chin: a in");
    expect(root.querySelector("header")?.textContent).toContain("0 of 2 done");
  });
  it("stays under the finger when it is drawn anew, and never ticks what came in its place", () => {
    const done = root.querySelector(".pocket-done") as HTMLButtonElement;
    mounted.draw();
    expect(root.querySelector(".pocket-done")).toBe(done);
    minutes = 101; // the clock goes on to another stop while the finger is down
    mounted.draw();
    expect(root.querySelector(".current b")?.textContent).toBe("Chin: c in");
    expect(done.isConnected).toBe(false);
    done.click();
    press("Stop before");
    expect(root.querySelector(".pocket-move.done b")?.textContent).toBe("Chin: a in");
    press("Next stop");
    expect(root.querySelector(".pocket-move.done")).toBeNull();
  });
  it("keeps the stop, the focus and what is typed when another version of it comes", () => {
    press("Next stop");
    press("Note it");
    expect(document.activeElement).toBe(noteField());
    type("lens cap");
    const [camp, climb, col] = CARD.places as [Place, Place, Place];
    const ford = place("ford", 90, 100, true, []);
    mounted.show({ ...CARD, places: [camp, climb, ford, { ...col, name: "high col" }] });
    expect(root.querySelector(".pocket-place")?.textContent).toContain("high col");
    expect(document.activeElement).toBe(noteField());
    expect(noteField().value).toBe("lens cap");
    press("Stop before");
    expect(noteField().value).toBe("");
    press("Next stop");
    expect(noteField().value).toBe("lens cap");
    press("Note it");
    expect([noteField().value, root.querySelector(".pocket-words li")?.textContent]).toEqual([
      "",
      "lens cap",
    ]);
    mounted.show({ ...CARD, places: [camp, climb] }); // that stop is gone: by the clock
    expect(root.querySelector(".pocket-place")?.textContent).toContain("camp");
  });
  it("tells what must be full at this stop, and nowhere else", () => {
    expect(root.querySelector(".pocket-time")?.textContent).toContain("a full by 10:05.");
    press("Next stop");
    expect(root.querySelector(".pocket-time")?.textContent).not.toContain("full by");
  });
  it("has no buttons for moves while hands are not free, and tells what must be ready", () => {
    minutes = 50;
    press("Next stop");
    press("By the clock");
    expect(root.querySelector(".pocket-busy")?.textContent).toContain("Next: col, 10:00");
    expect(root.querySelector(".pocket-busy")?.textContent).toContain("Chin: c in");
    expect(root.querySelectorAll(".pocket-moves button")).toHaveLength(0);
  });
  it("notes what is read and what is seen, and never takes it for code", () => {
    const input = noteField();
    type("shows 40 % <img src=x>");
    input.dispatchEvent(new KeyboardEvent("keydown", { key: "Enter" }));
    expect(root.querySelector(".pocket-words li")?.textContent).toBe("shows 40 % <img src=x>");
    expect(root.querySelector("img")).toBeNull();
    expect(localStore("tumbrel-drawn").all()[0]).toMatchObject({ kind: "reading", move: "camp" });
  });
});
