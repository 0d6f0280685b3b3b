import { describe, expect, it } from "vitest";
import { cameraResult, DOCUMENT, REHEARSAL } from "../testing/samples";
import type { Assignment, Ledger, StretchTold, VariantCompared } from "./types";
import {
  comparisonSentence,
  differencesOf,
  ledgerRows,
  legRows,
  stretchText,
  withTaken,
} from "./variants";

const asked = DOCUMENT.plan.assignments[0] as Assignment;
const stretch = (part: Partial<StretchTold> = {}): StretchTold => ({
  camera: asked.camera,
  item: asked.item,
  how: "roll 4K30",
  filmed_ms: 3_600_000,
  lost_ms: 0,
  ...part,
});
const LEDGER: Ledger = {
  headline: "One must is broken.",
  detail: "",
  importance: [{ key: "must", asked_ms: 7_200_000, filmed_ms: 3_600_000 }],
  moments: [{ importance: "must", count: 3, whole: 1.42 }],
  legs: [],
  first: null,
  least_left: {
    unit: "chin",
    name: "Chin",
    resource: "battery",
    left: 0.094,
    at_ms: 0,
    item: asked.item,
  },
  grams: 2012,
  money: null,
  swaps: 3,
  bytes: 130e9,
  wh: 38.4,
  looking_ms: 5_400_000,
  picture: 111.6,
  stops: 0,
  warnings: 1,
  stretches: [stretch()],
};
const state = (part: Partial<Ledger> = {}, name: string | null = null): VariantCompared => ({
  variant: name === null ? null : { id: 1, name, words: "", made_at: "" },
  state: { document: DOCUMENT, rehearsal: REHEARSAL, ledger: { ...LEDGER, ...part } },
});
const when = () => "09:34";
const row = (states: VariantCompared[], name: string) =>
  ledgerRows(states, when)
    .find((one) => one.name.startsWith(name))
    ?.cells.map((cell) => [cell.text, cell.differs]);

describe("figures side by side", () => {
  it("have their unit, and stand out where they are others than the first", () => {
    const states = [state(), state({ bytes: 626e9, swaps: 3, grams: 2012.4 }, "B")];
    expect(row(states, "written")).toEqual([
      ["130 GB", false],
      ["626 GB", true],
    ]);
    expect(row(states, "carried")?.[1]).toEqual(["2012 g", false]);
    expect(row(states, "must")?.[0]).toEqual(["1 h 00 of 2 h 00", false]);
    expect(row(states, "want")?.[0]).toEqual(["none asked", false]);
    expect(row(states, "least left")?.[0]).toEqual(["Chin, 9 % of battery", false]);
    expect(row(states, "to know")?.[0]).toEqual(["1 warning", false]);
  });
  it("money is a line only where someone counts it", () => {
    expect(row([state()], "costs")).toBeUndefined();
    expect(row([state({ money: 319.5 })], "costs")).toEqual([["319.5", false]]);
  });
  it("what gives out first is told with its cause and hour", () => {
    const first = {
      camera: "chin",
      cause: "hot" as const,
      at_ms: 60_000,
      item: asked.item,
      before_end_ms: 0,
      minutes: 4,
      lost_ms: 240_000,
    };
    const told = state({ first });
    told.state.rehearsal = { ...REHEARSAL, cameras: [cameraResult("chin")] };
    expect(row([told], "first to give out")?.[0]?.[0]).toBe("Chin, hot, 09:34");
    expect(row([state()], "first to give out")?.[0]?.[0]).toBe("nothing");
  });
});

it("legs are told where they differ", () => {
  const leg = (filmed_ms: number) => [{ key: asked.item, asked_ms: 3_600_000, filmed_ms }];
  const rows = legRows([state({ legs: leg(600_000) }), state({ legs: leg(1_200_000) })]);
  expect(rows.map((one) => one.cells.map((cell) => cell.text))).toEqual([
    ["10 min of 1 h 00", "20 min of 1 h 00"],
  ]);
  expect(legRows([state({ legs: leg(1) }), state({ legs: leg(1) })])).toEqual([]);
});

describe("where states differ", () => {
  it("is told by stretch, with what one state does not ask", () => {
    const other = state({ stretches: [] }, "B");
    const [found] = differencesOf([state(), other]);
    expect(found?.cells.map(stretchText)).toEqual(["roll 4K30, 1 h 00", "not asked"]);
    expect(differencesOf([state(), state()])).toEqual([]);
  });
  it("less than a minute is no difference; what is missing is said", () => {
    const near = state({ stretches: [stretch({ filmed_ms: 3_600_400 })] });
    expect(differencesOf([state(), near])).toEqual([]);
    expect(stretchText(stretch({ lost_ms: 1_920_000 }))).toBe("roll 4K30, 1 h 00, 32 min missing");
  });
});

describe("a stretch taken from another state", () => {
  const { plan } = DOCUMENT;
  const take = (from: Partial<Assignment>[]) =>
    withTaken(
      DOCUMENT,
      plan,
      { ...plan, assignments: from.map((one) => ({ ...asked, ...one })) },
      asked.camera,
      asked.item,
    );
  it("is asked as it is there, or not any more", () => {
    expect(take([{ importance: "nice" }])?.assignments[0]?.importance).toBe("nice");
    expect(take([])?.assignments.some((one) => one.item === asked.item)).toBe(false);
  });
  it("is refused where it is so already, or the kit has no such mode", () => {
    expect(take([{}])).toBeNull();
    expect(take([{ mode: "gone" }])).toBeNull();
    expect(withTaken(DOCUMENT, plan, plan, "gone", asked.item)).toBeNull();
  });
});

it("a sentence says what the others give and cost", () => {
  const more = state({ looking_ms: LEDGER.looking_ms - 3_600_000, grams: 1900 }, "B");
  expect(comparisonSentence([state(), more], ["the plan now", "Lighter"])).toBe(
    "Against the plan now. Lighter: 1 h 00 less to look through, 112 g less.",
  );
  expect(comparisonSentence([state(), state()], ["A", "B"])).toContain("nothing of it changes");
  expect(comparisonSentence([], [])).toContain("Choose one");
});
