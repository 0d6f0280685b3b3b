// @vitest-environment jsdom
import { render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { describe, expect, it, vi } from "vitest";
import type { Assignment, LegServed, Served } from "../../domain/types";
import { withValue } from "../../testing/held";
import { DOCUMENT, REHEARSAL } from "../../testing/samples";
import { Angles } from "./Angles";
import { Serves } from "./Serves";

const asked = DOCUMENT.plan.assignments[0] as Assignment;
const CHIN: Served = {
  camera: "chin",
  mount: "chest",
  angle: "sight",
  verdict: "poorly",
  why: ["it shakes on a steep climb"],
  asked: true,
  reason: "",
};
const BOOM: Served = { ...CHIN, camera: "boom", angle: "face", verdict: "well", why: [] };
const LEG: LegServed = {
  item: "way",
  name: "way",
  cameras: [BOOM, CHIN],
  suggested: ["boom"],
  angles: 1,
};
const chin = DOCUMENT.kit.cameras[0];
const WHOLE = {
  ...DOCUMENT,
  kit: {
    ...DOCUMENT.kit,
    cameras: chin ? [chin, { ...chin, id: "boom", name: "Boom" }] : [],
  },
};

describe("whether a camera serves on a leg", () => {
  it("says why not, names another angle, and keeps the person's reason", async () => {
    const held = withValue(asked, (value, edit) => (
      <Serves
        document={WHOLE}
        leg={LEG}
        camera="chin"
        asked={value}
        put={(part) => edit((old) => ({ ...old, ...part }))}
      />
    ));
    expect(screen.getByRole("region").textContent).toContain(
      "what I see, chest: it serves poorly here: it shakes on a steep climb.",
    );
    screen.getByText("Another angle: Boom (my face).");
    await userEvent.type(screen.getByLabelText("Why all the same"), " it is a road {Enter}");
    expect(held.now().reason).toBe("it is a road");
  });
  it("asks for no reason where it serves well, or is not asked", () => {
    render(<Serves document={WHOLE} leg={LEG} camera="boom" asked={asked} put={vi.fn()} />);
    render(<Serves document={WHOLE} leg={LEG} camera="chin" asked={undefined} put={vi.fn()} />);
    expect(screen.queryByLabelText("Why all the same")).toBeNull();
  });
});

describe("variety", () => {
  const rehearsal = {
    ...REHEARSAL,
    coverage: [
      {
        by: "angle" as const,
        key: "sight",
        asked_ms: 3_600_000,
        filmed_ms: 3_000_000,
        kept_ms: 3_000_000,
      },
    ],
  };
  it("is minutes by angle, and leads to a camera that would serve", async () => {
    const goTo = vi.fn();
    const serving = { legs: [LEG], matrix: [] };
    render(<Angles document={WHOLE} rehearsal={rehearsal} serving={serving} goTo={goTo} />);
    expect(screen.getByRole("row").textContent).toBe("what I see50 min");
    await userEvent.click(screen.getByRole("button", { name: /Boom would serve on way/ }));
    expect(goTo).toHaveBeenCalledWith({ camera: "boom", item: "way" }, 1_800_000);
  });
  it("is left out where nothing is asked", () => {
    render(<Angles document={WHOLE} rehearsal={REHEARSAL} serving={null} goTo={vi.fn()} />);
    expect(screen.queryByRole("region", { name: "Angles" })).toBeNull();
  });
});
