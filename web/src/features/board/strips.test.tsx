// @vitest-environment jsdom
import { render, screen, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { describe, expect, it, vi } from "vitest";
import { clockOf } from "../../domain/clock";
import { patternOf } from "../../domain/patterns";
import type { Assignment, Camera, Pattern, PlanDocument } from "../../domain/types";
import { lanesOf } from "../../scale/lanes";
import { withTrip, withValue } from "../../testing/held";
import { cameraResult, DOCUMENT, powered, REHEARSAL } from "../../testing/samples";
import { CameraStrip } from "./CameraStrip";
import { Carried } from "./Carried";
import { Lost } from "./Lost";
import { Margins } from "./Margins";
import { PatternFields } from "./PatternFields";
import { PlanStrip } from "./PlanStrip";

const chin = DOCUMENT.kit.cameras[0] as Camera;
const WHOLE: PlanDocument = {
  ...DOCUMENT,
  kit: {
    ...powered(DOCUMENT.kit),
    cameras: [chin, { ...chin, id: "boom", name: "Boom" }],
  },
};
const shared = {
  document: WHOLE,
  rehearsal: REHEARSAL,
  clock: clockOf("UTC", REHEARSAL.start_utc),
  lanes: lanesOf(980, [false, false]),
};

async function type(label: string, text: string) {
  const field = screen.getByLabelText(label);
  await userEvent.clear(field);
  await userEvent.type(field, `${text}{Enter}`);
}

describe("what holds for the whole trip", () => {
  const plan = () =>
    withTrip(WHOLE, (kept) => <PlanStrip {...shared} kept={kept} onClose={vi.fn()} />);
  it("charging is turned off, the film's rate and the aircraft are kept", async () => {
    const held = plan();
    await userEvent.click(screen.getByLabelText("Free hands plug in what is low"));
    await type("The film’s rate, frames a second", "24");
    await userEvent.click(screen.getByLabelText("The kit is carried on an aircraft"));
    expect(held.now().plan).toMatchObject({ charging: "never", delivery_fps: 24, by_air: true });
  });
  it("when batteries are swapped is kept", async () => {
    const held = plan();
    await userEvent.click(screen.getByRole("button", { name: "swap when flat" }));
    expect(held.now().plan.swap_policy).toBe("run_flat");
  });
  it("a unit that must be full is added, timed, changed and deleted", async () => {
    const held = plan();
    await userEvent.click(screen.getByRole("button", { name: "Add one" }));
    expect(held.now().plan.full_by).toEqual([{ unit: "a1", at: "2027-06-13T06:00:00" }]);
    await type("Local clock", "2027-06-12 07:30");
    await userEvent.selectOptions(screen.getByLabelText("Unit"), "Slab");
    expect(held.now().plan.full_by).toEqual([{ unit: "slab", at: "2027-06-12T07:30:00" }]);
    await userEvent.click(screen.getByRole("button", { name: "Delete" }));
    expect(held.now().plan.full_by).toEqual([]);
  });
  it("a time that is none is refused beside the field", async () => {
    const held = plan();
    await userEvent.click(screen.getByRole("button", { name: "Add one" }));
    await type("Local clock", "tomorrow");
    expect(screen.getByText("Like 2027-06-13 06:00.")).toBeTruthy();
    expect(held.now().plan.full_by[0]?.at).toBe("2027-06-13T06:00:00");
  });
  it("the same unit cannot be wished for twice", async () => {
    plan();
    const add = screen.getByRole("button", { name: "Add one" });
    for (let n = 0; n < 3; n += 1) await userEvent.click(add);
    const second = screen.getByRole("group", { name: "Full by 2" });
    const choices = within(second).getAllByRole("option");
    expect(choices.map((one) => one.textContent)).toEqual(["A2"]);
    expect(add.hasAttribute("disabled")).toBe(true);
  });
});

describe("how a camera is carried", () => {
  const carry = () =>
    withTrip(WHOLE, (kept) => (
      <CameraStrip {...shared} kept={kept} onClose={vi.fn()} camera="chin" />
    ));
  it("one action starts it together with another, until that is taken back", async () => {
    const held = carry();
    const together = screen.getByRole("group", { name: "One action starts it together with" });
    await userEvent.click(within(together).getByLabelText("Boom"));
    expect(held.now().plan.links).toEqual([{ cameras: ["chin", "boom"] }]);
    await userEvent.click(within(together).getByLabelText("Boom"));
    expect(held.now().plan.links).toEqual([]);
  });
  it("its battery, source, mount and radio are kept", async () => {
    const held = carry();
    await userEvent.selectOptions(screen.getByLabelText("Battery at the start"), "A2");
    await userEvent.selectOptions(screen.getByLabelText(/^Fed/), "Slab");
    await userEvent.selectOptions(screen.getByLabelText("Mount"), "chest");
    await userEvent.click(screen.getByLabelText("Radio left on when it is off"));
    expect(held.now().plan.cameras).toEqual([
      expect.objectContaining({
        camera: "chin",
        battery: "a2",
        source: "slab",
        mount: "chest",
        radio_left_on: true,
      }),
    ]);
  });
});

describe("the figures of a pattern", () => {
  const asked = DOCUMENT.plan.assignments[0] as Assignment;
  const fields = (kind: Pattern["kind"]) =>
    withValue({ ...asked, pattern: patternOf(kind, undefined) }, (value, edit) => (
      <PatternFields
        loops={[]}
        lastsS={3600}
        pattern={value.pattern}
        put={(part) => edit((old) => ({ ...old, ...part }))}
      />
    ));
  it("takes: seconds, and a count instead of a rate", async () => {
    const held = fields("takes");
    await type("Each, s", "45");
    await userEvent.click(screen.getByRole("button", { name: "count in all instead" }));
    await type("Takes, in all", "4");
    expect(held.now().pattern).toEqual({ kind: "takes", seconds: 45, count: 4, per_hour: null });
  });
  it("a loop: kept at the moments, so many times, or by the hour, never two at once", async () => {
    const held = fields("loop");
    await type("Length, s", "300");
    await userEvent.selectOptions(screen.getByLabelText("Kept"), "so many times an hour");
    await type("Times an hour, 1/h", "1,5");
    expect(held.now().pattern).toMatchObject({ length_s: 300, saves: null, saves_per_hour: 1.5 });
    await userEvent.selectOptions(screen.getByLabelText("Kept"), "at the leg's moments");
    expect(held.now().pattern).toMatchObject({ saves: null, saves_per_hour: null });
  });
  it("windows: by the clock, by the sun, one more and one less", async () => {
    const held = fields("windows");
    await type("opens at", "6:15");
    await userEvent.selectOptions(screen.getByLabelText("closes"), "sunrise");
    await type("closes after, min", "-20");
    await userEvent.click(screen.getByRole("button", { name: "Add a window" }));
    expect(screen.getByRole("group", { name: "Window 2" })).toBeTruthy();
    await userEvent.click(screen.getByRole("button", { name: "Delete window 2" }));
    expect(held.now().pattern).toEqual({
      kind: "windows",
      windows: [
        {
          opens: { kind: "clock", at: "06:15:00" },
          closes: { kind: "sun", event: "sunrise", plus_min: -20 },
        },
      ],
    });
  });
  it("a clock that is none is refused beside the field", async () => {
    const held = fields("windows");
    await type("opens at", "25:00");
    expect(screen.getByText("Like 07:30.")).toBeTruthy();
    expect(held.now().pattern).toMatchObject({
      windows: [{ opens: { at: "07:00:00" } }],
    });
  });
  it("an interval: frames as stills have a size, as video none", async () => {
    const held = fields("interval");
    await userEvent.selectOptions(screen.getByLabelText("Frames become"), "stills");
    await type("One still, MB", "8");
    expect(held.now().pattern).toMatchObject({ frame_mb: 8, every_s: 10 });
    await userEvent.selectOptions(screen.getByLabelText("Frames become"), "video");
    expect(held.now().pattern).toMatchObject({ frame_mb: null });
  });
  it("armed: trigger, clip and what came before it", async () => {
    const held = fields("armed");
    await userEvent.selectOptions(screen.getByLabelText("Starts by"), "voice");
    await type("Before it, s", "0");
    expect(held.now().pattern).toMatchObject({ trigger: "voice", pre_record_s: 0, per_hour: 4 });
  });
  it("a roll has none", () => {
    fields("roll");
    expect(screen.queryAllByRole("textbox")).toEqual([]);
  });
});

describe("what is left, and what is carried", () => {
  it("margins name each asked camera's charge, heat and room", () => {
    const cameras = [
      cameraResult("chin", {
        asked_ms: 1,
        margins: { charge: 0.094, heat_k: 3.6, room: 21e9 },
      }),
      cameraResult("boom", { asked_ms: 1, margins: { charge: 0, heat_k: -0.2, room: 1.2e12 } }),
      cameraResult("idle"),
    ];
    const slab = { unit: "slab", name: "Slab", resource: "bank", left: 0.12 } as const;
    const least = [{ ...slab, at_ms: 0, item: "d1-go" }];
    render(<Margins document={WHOLE} rehearsal={{ ...REHEARSAL, cameras, least }} />);
    expect(screen.getByRole("listitem").textContent).toMatch(/^Slab 12 % of its charge/);
    const rows = screen.getAllByRole("row").slice(1);
    expect(rows.map((row) => row.textContent)).toEqual(["Chin9 %4 K21 GB", "Boom0 %reached1.2 TB"]);
  });
  it("nothing asked has no margins", () => {
    render(<Margins document={WHOLE} rehearsal={{ ...REHEARSAL, cameras: [] }} />);
    expect(screen.queryByRole("table")).toBeNull();
  });
  it("what one loss would take is said in minutes", () => {
    render(<Lost {...shared} handMs={3_700_000} />);
    expect(screen.getByText("K1: 30 min of footage that exist nowhere else.")).toBeTruthy();
  });
  it("each battery is told with its charge and where it is", () => {
    withTrip(WHOLE, () => <Carried {...shared} handMs={0} />);
    const rows = screen.getAllByRole("listitem").map((one) => one.textContent);
    expect(rows.some((one) => /^A1.*%in Chin/.test(one))).toBe(true);
  });
});
