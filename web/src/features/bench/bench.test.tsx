// @vitest-environment jsdom
import { render, screen, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { describe, expect, it, vi } from "vitest";
import type { BenchRun, BenchTold, Camera, Look, NextRun, RunTold } from "../../domain/types";
import { withValue } from "../../testing/held";
import { BENCH_RUN as RUN } from "../../testing/benchSamples";
import { DOCUMENT } from "../../testing/samples";
import { benchLayout, HANG_PX, RAIL, TOP, twoLines } from "./benchLayout";
import { BodyPicture } from "./BodyPicture";
import { ModesPicture } from "./ModesPicture";
import { RunEditor } from "./RunEditor";
import { RunsPicture } from "./RunsPicture";
import { StartTest } from "./StartTest";
import { TypeRun } from "./TypeRun";

const [CHIN] = DOCUMENT.kit.cameras as [Camera];
const TOLD: RunTold = {
  run: RUN.id,
  counts: true,
  low_min: 24,
  likely_min: 27,
  high_min: 33,
  end: "hot",
  box_min: 95,
  outlier: false,
  wide: false,
  words: "As expected.",
};
const NEXT: NextRun = {
  mode: "m",
  set_up: "bare",
  features: [],
  ambient_c: 12,
  air_mps: 1.5,
  plugged: false,
  charge_start: 1,
  minutes: 70,
  item: "ridge",
  mode_wanted: "m",
  doubt_before: 0.2,
  doubt_after: 0.1,
};
const BENCH = { runs: [TOLD], next: NEXT } as unknown as BenchTold;
const STOPPED: BenchRun = { ...RUN, id: "chin-2", end: "stopped", minutes: 48 };

async function type(label: string, text: string) {
  const field = screen.getByLabelText(label);
  await userEvent.clear(field);
  await userEvent.type(field, `${text}{Enter}`);
}

describe("the picture of the runs", () => {
  const layout = benchLayout([RUN, STOPPED], BENCH, [], 1200);
  it("has a lane a run and a last one for the run worth doing", () => {
    expect(layout.lanes.map((lane) => lane.kind)).toEqual(["run", "run", "next"]);
    expect(layout.lanes[0]?.x).toBeGreaterThan(RAIL);
    expect(layout.y(0)).toBe(TOP);
    expect(layout.y(1e6)).toBeCloseTo(TOP + HANG_PX);
    expect(layout.maxMin).toBeGreaterThan(95);
  });
  it("gives long names of set-ups two lines", () => {
    expect(twoLines("bare", 10)).toEqual(["bare", ""]);
    expect(twoLines("on the wheel's current, battery in", 18)).toEqual([
      "on the wheel's",
      "current, battery …",
    ]);
    expect(twoLines("underwaterhousing", 10)).toEqual(["underwater", "housing"]);
  });
  it("does not stretch to what has no end", () => {
    const endless = {
      ...BENCH,
      runs: [{ ...TOLD, likely_min: 2880, high_min: 2880, box_min: null }],
    };
    expect(benchLayout([RUN], { ...endless, next: null }, [], 1200).maxMin).toBeLessThan(60);
  });
  it("is wider than a phone rather than crowded", () => {
    expect(benchLayout([RUN, STOPPED], BENCH, [], 390).width).toBeGreaterThan(300);
    expect(benchLayout(Array(12).fill(RUN), null, [], 390).laneWidth).toBe(92);
  });
  it("says each lane, goes along by arrows and is chosen by a press", async () => {
    const onChoose = vi.fn();
    render(
      <RunsPicture layout={layout} camera={CHIN} width={1200} chosen={null} onChoose={onChoose} />,
    );
    const [hot, stopped, next] = within(screen.getByRole("list", { name: "Runs" })).getAllByRole(
      "button",
    );
    expect(hot?.getAttribute("aria-label")).toContain("hot after 28 min; expected 24 to 33 min");
    expect(stopped?.getAttribute("aria-label")).toContain("not hot by 48 min");
    hot?.focus();
    await userEvent.keyboard("{End}");
    expect(document.activeElement).toBe(next);
    await userEvent.keyboard("{ArrowLeft}{Enter}");
    expect(onChoose).toHaveBeenLastCalledWith("chin-2");
    expect(next?.textContent).toBe("Start this run");
  });
});

describe("the pictures of any air", () => {
  const reach = (likely: number | null, low: number | null, high: number | null) => ({
    low_min: low,
    likely_min: likely,
    high_min: high,
  });
  const look: Look = {
    modes: [
      {
        mode: "m",
        empty: reach(60, 55, 66),
        hot: reach(28, 24, null),
        low_min: 24,
        likely_min: 28,
        high_min: 58,
        end: "hot",
        hot_share: 0.8,
      },
    ],
    curves: [
      {
        kind: "asked",
        name: "bare",
        minutes: [0, 14, 28],
        likely_c: [21, 55, 68],
        low_c: [21, 50, 62],
        high_c: [21, 60, 74],
        hot_min: 28,
        empty_min: null,
      },
      {
        kind: "moving",
        name: "with a fan",
        minutes: [0, 30, 29],
        likely_c: [21, 40, 44],
        low_c: [21, 40, 44],
        high_c: [21, 40, 44],
        hot_min: null,
        empty_min: 29,
      },
    ],
    stop_low_c: 62,
    stop_c: 68,
    stop_high_c: 74,
  };
  it("modes say both ends with their spread", () => {
    render(<ModesPicture look={look} camera={CHIN} width={600} chosen="m" />);
    const words = screen.getByRole("img").getAttribute("aria-label");
    expect(words).toContain("4K 30: empty after 1 h 00 (55 min to 1 h 06)");
    expect(words).toContain("hot after 28 min (24 min or never)");
  });
  it("curves end in words that never cover each other", () => {
    const { container } = render(<BodyPicture look={look} width={600} />);
    expect(screen.getByRole("img").getAttribute("aria-label")).toContain("stops at 68°");
    const words = [...container.querySelectorAll("text")].filter((one) =>
      /(hot|empty) \d/.test(one.textContent ?? ""),
    );
    const tops = words.map((one) => Number(one.getAttribute("y"))).sort((a, b) => a - b);
    expect(tops).toHaveLength(2);
    expect((tops[1] ?? 0) - (tops[0] ?? 0)).toBeGreaterThanOrEqual(16);
  });
});

describe("a run that is typed", () => {
  it("is kept with what was typed", async () => {
    const onKeep = vi.fn();
    render(<TypeRun camera={CHIN} first={RUN} onKeep={onKeep} />);
    await type("Recorded, min", "31.5");
    await type("Room, °C", "-5");
    await type("Date and time", "2027-02-30 10:00");
    expect(screen.getByText("Write it like 2026-05-09 14:05.")).toBeTruthy();
    await type("Date and time", "2027-02-28 10:00");
    await userEvent.selectOptions(screen.getByLabelText("It ended"), "empty");
    await userEvent.click(screen.getByRole("button", { name: "Keep this run" }));
    expect(onKeep).toHaveBeenCalledWith({
      ...RUN,
      minutes: 31.5,
      ambient_c: -5,
      end: "empty",
      at: "2027-02-28T10:00:00",
    });
  });
  it("cannot be kept while it cannot be", async () => {
    render(<TypeRun camera={CHIN} first={RUN} onKeep={vi.fn()} />);
    await type("Warned of heat at, min", "90");
    expect(screen.getByRole("alert").textContent).toContain("The warning comes after the end");
    expect(screen.getByRole<HTMLButtonElement>("button", { name: "Keep this run" }).disabled).toBe(
      true,
    );
  });
});

describe("a run that is there", () => {
  const editor = (first: BenchRun = RUN) =>
    withValue(first, (run, edit) => (
      <RunEditor
        camera={CHIN}
        run={run}
        told={TOLD}
        onChange={edit}
        onDelete={vi.fn()}
        onClose={vi.fn()}
      />
    ));
  it("does not count with a reason, and counts again", async () => {
    const held = editor();
    await type("Does not count because", "the lens was wet");
    expect(held.now().excluded).toBe("the lens was wet");
    await userEvent.click(screen.getByRole("button", { name: "Let it count again" }));
    expect(held.now().excluded).toBeNull();
  });
  it("is not changed into one that cannot be", async () => {
    const held = editor();
    await type("Warned of heat at, min", "99");
    expect(screen.getByRole("alert").textContent).toContain("Nothing was changed.");
    expect(held.now()).toEqual(RUN);
    await type("Written, GB", "21.5");
    expect(held.now().bytes).toBe(21_500_000_000);
  });
});

describe("a test that starts", () => {
  it("starts now, in the conditions chosen, on the simulated camera if wished", async () => {
    const onStart = vi.fn();
    render(<StartTest camera={CHIN} first={RUN} busy={false} onStart={onStart} />);
    await userEvent.selectOptions(screen.getByLabelText("Air"), "1.5");
    await userEvent.click(screen.getByRole("button", { name: /simulated.*each second/ }));
    await userEvent.click(screen.getByRole("button", { name: "Start the clock" }));
    expect(onStart).toHaveBeenCalledOnce();
    expect(onStart.mock.calls[0]?.[0]).toMatchObject({
      mode: "m",
      air_mps: 1.5,
      device: "simulated",
      speed: 60,
    });
  });
  it("waits while another test of the camera runs", () => {
    render(<StartTest camera={CHIN} first={RUN} busy onStart={vi.fn()} />);
    const start = screen.getByRole<HTMLButtonElement>("button", { name: "Start the clock" });
    expect(start.disabled).toBe(true);
  });
});
