// @vitest-environment jsdom
import { render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { describe, expect, it, vi } from "vitest";
import { type TripHere, TripContext } from "../../app/TripContext";
import { changedSince, fellOver } from "../../domain/ours";
import type { PlanDocument } from "../../domain/types";
import { DOCUMENT, REHEARSAL } from "../../testing/samples";
import { UndoHere } from "./UndoHere";

const OTHER_KIT: PlanDocument = { ...DOCUMENT, kit: { ...DOCUMENT.kit } };
const OTHER_PLAN: PlanDocument = { ...DOCUMENT, plan: { ...DOCUMENT.plan } };

function shown(good: PlanDocument | null, asked: PlanDocument, canUndo = true) {
  const undo = { trip: vi.fn(), kit: vi.fn() };
  const of = (part: "trip" | "kit") => ({ state: { can_undo: canUndo }, undo: undo[part] });
  const here = { kept: of("trip"), kit: of("kit"), rehearsing: { good, asked } };
  render(
    <TripContext value={here as unknown as TripHere}>
      <UndoHere />
    </TripContext>,
  );
  return undo;
}

describe("a fault of Tumbrel", () => {
  it("is told from findings of the plan", () => {
    const finding = { code: "engine_failed", severity: "stop", path: "plan" } as const;
    expect(fellOver(REHEARSAL)).toBe(false);
    expect(
      fellOver({
        ...REHEARSAL,
        findings: [{ ...finding, values: {}, text: "", harm: false, curable: false }],
      }),
    ).toBe(true);
  });
  it("names what was changed since the trip could be rehearsed", () => {
    expect(changedSince(DOCUMENT, OTHER_KIT)).toEqual(["kit"]);
    expect(changedSince(DOCUMENT, OTHER_PLAN)).toEqual(["trip"]);
    expect(changedSince(DOCUMENT, DOCUMENT)).toEqual(["trip", "kit"]);
    expect(changedSince(null, DOCUMENT)).toEqual(["trip", "kit"]);
  });
  it("says that the change was kept, and takes it back where it was made", async () => {
    const undo = shown(DOCUMENT, OTHER_KIT);
    screen.getByText("Your change of the kit was kept.");
    await userEvent.click(screen.getByRole("button", { name: "Undo it in the kit" }));
    expect(undo.kit).toHaveBeenCalledOnce();
    expect(undo.trip).not.toHaveBeenCalled();
    expect(screen.queryByRole("button", { name: "Undo it in the trip" })).toBeNull();
  });
  it("offers both where that is not known, and none where there is nothing before", () => {
    shown(null, DOCUMENT);
    expect(screen.getAllByRole("button")).toHaveLength(2);
    shown(null, DOCUMENT, false);
    screen.getByText(/there is nothing before it/);
  });
});
