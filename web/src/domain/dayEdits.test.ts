import { describe, expect, it } from "vitest";
import { DOCUMENT, REHEARSAL } from "../testing/samples";
import { itemsOfDay, withDayCopied } from "./dayEdits";
import type { Assignment, Item, Leg, Plan } from "./types";

const [camp, way] = DOCUMENT.trip.items as [Item, Leg];
const leg = (id: string, activity: Leg["activity"]): Leg => ({ ...way, id, name: id, activity });
const stop = (id: string): Item => ({ ...camp, id, name: id });
const asks = (item: string, camera = "chin"): Assignment => ({
  ...(DOCUMENT.plan.assignments[0] as Assignment),
  item,
  camera,
});
const plan = (...assignments: Assignment[]): Plan => ({ ...DOCUMENT.plan, assignments });

describe("a day's work copied to another", () => {
  const first = [stop("s1"), leg("c1", "climb"), leg("f1", "flight"), leg("f2", "flight")];
  it("goes climb to climb and flight to flight in their order, for every camera", () => {
    const other = [leg("f3", "flight"), leg("c3", "climb"), stop("s3"), leg("f4", "flight")];
    const made = withDayCopied(
      plan(asks("c1"), asks("f1"), asks("f1", "boom"), asks("f2"), asks("s1")),
      first,
      other,
    );
    const copies = made.plan.assignments.slice(5).map((one) => [one.camera, one.item]);
    expect(copies).toEqual([
      ["chin", "c3"],
      ["chin", "f3"],
      ["boom", "f3"],
      ["chin", "f4"],
      ["chin", "s3"],
    ]);
    expect([made.copied, made.left]).toEqual([5, []]);
  });
  it("takes the place of what was asked there, and of a leg without its like", () => {
    const other = [leg("w3", "walk"), leg("f3", "flight")];
    const made = withDayCopied(plan(asks("c1"), asks("f1"), asks("f2"), asks("f3")), first, other);
    expect(made.plan.assignments.map((one) => one.item)).toEqual(["c1", "f1", "f2", "w3", "f3"]);
    expect(made.left).toEqual(["f2"]);
  });
  it("a day without work leaves nothing on the other", () => {
    const made = withDayCopied(plan(asks("f3")), first, [leg("f3", "flight")]);
    expect(made.plan.assignments).toEqual([]);
    expect(made.copied).toBe(0);
  });
});

describe("legs and stops of a day", () => {
  it("are those that begin within it", () => {
    const day = { number: 1, startMs: 1, endMs: 5_400_000 };
    const ids = itemsOfDay(DOCUMENT.trip, REHEARSAL, day).map((one) => one.id);
    expect(ids).toEqual(["way"]);
  });
});
