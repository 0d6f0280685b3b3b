// @vitest-environment jsdom
import { fireEvent, render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { beforeEach, describe, expect, it, vi } from "vitest";
import type { Correction, ItemTold, Leg } from "../../domain/types";
import { HIGH_LEG, LOW_LEG, ON_WAY, TOLD } from "../../testing/routeSamples";
import { DOCUMENT } from "../../testing/samples";
import { EdgeGrip } from "./EdgeGrip";
import { stripLanes } from "./rowPictures";
import { WayFields } from "./WayFields";

const [low, , high] = TOLD.items as [ItemTold, ItemTold, ItemTold];

/** No server: a preview that cannot be had leaves the leg as it is. */
beforeEach(() => {
  vi.stubGlobal("fetch", () => Promise.reject(new TypeError("offline")));
});

describe("the edge between two legs", () => {
  const grip = () => {
    const moved: Correction[] = [];
    render(
      <EdgeGrip
        doc={{ trip: ON_WAY, plan: DOCUMENT.plan }}
        leg={LOW_LEG}
        follower={HIGH_LEG}
        told={low}
        toldAfter={high}
        heights={[100, 50]}
        lanes={stripLanes(1200)}
        onMove={(correction) => moved.push(correction)}
      />,
    );
    return { moved, slider: screen.getByRole("slider", { name: "End of low, start of high" }) };
  };
  it("is kept once when keys are done, within both legs", async () => {
    const { moved, slider } = grip();
    slider.focus();
    await userEvent.keyboard("{ArrowDown}{PageUp}{ArrowUp}");
    expect(slider.getAttribute("aria-valuenow")).toBe("1500");
    expect(slider.getAttribute("aria-valuetext")).toBe("1.5 km: low 30 min, high 30 min");
    await userEvent.keyboard("{Enter}");
    expect(moved).toEqual([{ kind: "edge", item: "low", to_m: 1500 }]);
    await userEvent.keyboard("{End}");
    expect(slider.getAttribute("aria-valuenow")).toBe("3980");
    await userEvent.tab();
    expect(moved.at(-1)).toEqual({ kind: "edge", item: "low", to_m: 3980 });
  });
  it("Escape leaves it where it was", async () => {
    const { moved, slider } = grip();
    slider.focus();
    await userEvent.keyboard("{Home}{Escape}{Enter}");
    expect(slider.getAttribute("aria-valuenow")).toBe("2000");
    expect(moved).toEqual([]);
  });
  it("follows the pointer up one leg and down the other", () => {
    const { moved, slider } = grip();
    slider.setPointerCapture = () => undefined;
    fireEvent.pointerDown(slider, { clientY: 500 });
    fireEvent.pointerMove(slider, { clientY: 475 });
    expect(slider.getAttribute("aria-valuenow")).toBe("1500");
    fireEvent.pointerMove(slider, { clientY: 525 });
    expect(slider.getAttribute("aria-valuenow")).toBe("3000");
    fireEvent.pointerUp(slider);
    expect(moved).toEqual([{ kind: "edge", item: "low", to_m: 3000 }]);
  });
});

describe("a leg on its way", () => {
  const fields = (leg: Leg, next: string | null) => {
    const made: Correction[] = [];
    const hand = vi.fn();
    const correct = (correction: Correction) => made.push(correction);
    render(
      <WayFields
        leg={leg}
        told={low}
        next={next}
        corrections={{ correct, busy: false, error: null }}
        onHand={hand}
      />,
    );
    return { made, hand };
  };
  it("is cut, halted and merged at the place that is chosen, and shows it", async () => {
    const { made, hand } = fields(LOW_LEG, "high");
    fireEvent.change(screen.getByRole("slider", { name: "Place on low" }), {
      target: { value: 500 },
    });
    expect(hand).toHaveBeenCalledWith(7.5 * 60_000);
    await userEvent.click(screen.getByRole("button", { name: "Cut here" }));
    await userEvent.clear(screen.getByLabelText("Halt for, min"));
    await userEvent.type(screen.getByLabelText("Halt for, min"), "20{Enter}");
    await userEvent.click(screen.getByRole("button", { name: "Halt here" }));
    await userEvent.click(screen.getByRole("button", { name: "Make one with high" }));
    expect(made).toEqual([
      { kind: "cut", item: "low", at_m: 500 },
      { kind: "halt", item: "low", at_m: 500, name: "Halt", duration_s: 1200 },
      { kind: "merge", item: "low" },
    ]);
  });
  it("timed by hand it may be timed by its way again; at the way's end nothing follows", async () => {
    const { made } = fields({ ...LOW_LEG, timed_by: "hand" }, null);
    expect(screen.queryByRole("button", { name: /Make one/ })).toBeNull();
    await userEvent.click(screen.getByRole("button", { name: "Time it by the way again" }));
    expect(made).toEqual([{ kind: "activity", item: "low", activity: "walk" }]);
  });
});
