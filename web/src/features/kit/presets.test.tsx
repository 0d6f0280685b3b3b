// @vitest-environment jsdom
import { screen, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { describe, expect, it } from "vitest";
import { GoneContext } from "../../app/gone";
import { freeSlot, freshPreset, withoutServing, withServing } from "../../domain/kitEdits";
import type { Camera, Serving } from "../../domain/types";
import { withValue } from "../../testing/held";
import { DOCUMENT } from "../../testing/samples";
import { Presets } from "./Presets";

const chin = DOCUMENT.kit.cameras[0] as Camera;

describe("presets", () => {
  it("keep slots of their own, copied too, and the last one may go", async () => {
    const told: unknown[] = [];
    const held = withValue(chin, (camera, edit) => (
      <GoneContext value={(...words) => told.push(words)}>
        <Presets
          camera={camera}
          path="kit.cameras[0]"
          put={(part) => edit((old) => ({ ...old, ...part }))}
          usedIn={() => ["Trial"]}
        />
      </GoneContext>
    ));
    await userEvent.click(screen.getByRole("button", { name: "Add a preset" }));
    const first = within(screen.getByRole("listitem", { name: "preset Preset 1" }));
    await userEvent.type(first.getByLabelText("Shutter, one part in, of a second"), "120{Enter}");
    await userEvent.clear(first.getByLabelText("Exposure bias, EV"));
    await userEvent.type(first.getByLabelText("Exposure bias, EV"), "-0.7{Enter}");
    await userEvent.click(screen.getByRole("button", { name: "Copy preset Preset 1" }));
    expect(held.now().presets).toMatchObject([
      { slot: 1, mode: "m", shutter_per_s: 120, exposure_ev: -0.7, white_balance_k: null },
      { slot: 2, shutter_per_s: 120 },
    ]);
    await userEvent.click(screen.getByRole("button", { name: "Delete preset Preset 1" }));
    expect(held.now().presets).toHaveLength(1);
    expect(told).toEqual([
      ["Preset Preset 1 of Chin", expect.stringContaining("Trial asks for it.") as unknown],
    ]);
  });
  it("a fresh one takes the first slot that is free", () => {
    const one = freshPreset(chin);
    expect(freeSlot([{ ...one, slot: 2 }, one, { ...one, slot: 4 }])).toBe(3);
  });
});

describe("what serves where", () => {
  const said: Serving = { what: "chest", where: "climb", verdict: "well", why: "" };
  it("is said once for each cell, and unsaid", () => {
    const once = withServing(withServing(DOCUMENT.kit, said), { ...said, verdict: "never" });
    expect(once.serving).toEqual([{ ...said, verdict: "never" }]);
    expect(withoutServing(once, said).serving).toEqual([]);
  });
});
