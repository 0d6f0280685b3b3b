import { describe, expect, it, vi } from "vitest";
import { lastSteps } from "./lastSteps";

const at = (minute: number) => `2027-06-12T06:${String(minute).padStart(2, "0")}:00Z`;

/** A document that holds the minutes of its steps, and stands at one of them. */
function stepped(where: string, made: readonly number[], stands: number) {
  const time = (place: number) => (made[place] === undefined ? null : at(made[place]));
  return {
    where,
    undo: vi.fn(),
    redo: vi.fn(),
    state: {
      can_undo: stands > 0,
      can_redo: stands < made.length,
      undo_at: time(stands - 1),
      redo_at: time(stands),
    },
  };
}

describe("what was done last", () => {
  it("is taken back first, wherever it was, and done again in its order", () => {
    const undoes = (trip: number, kit: number) =>
      lastSteps([stepped("in the trip", [1, 4], trip), stepped("in the kit", [2, 5], kit)]);
    const way = [
      undoes(2, 2).undoes,
      undoes(2, 1).undoes,
      undoes(1, 1).undoes,
      undoes(1, 0).undoes,
      undoes(0, 0).undoes,
    ];
    expect(way).toEqual([
      "Undo in the kit",
      "Undo in the trip",
      "Undo in the kit",
      "Undo in the trip",
      undefined,
    ]);
    const back = [undoes(0, 0).redoes, undoes(1, 0).redoes, undoes(1, 1).redoes];
    expect(back).toEqual(["Redo in the trip", "Redo in the kit", "Redo in the trip"]);
    expect(undoes(2, 1).redoes).toBe("Redo in the kit");
    expect(undoes(2, 2)).toMatchObject({ canUndo: true, canRedo: false });
  });
  it("lets go what could be redone before it", () => {
    const kit = stepped("in the kit", [2], 0);
    expect(lastSteps([stepped("in the trip", [1], 1), kit]).redoes).toBe("Redo in the kit");
    expect(lastSteps([stepped("in the trip", [1, 3], 2), kit]).canRedo).toBe(false);
  });
  it("is of the first of those that were made at once", () => {
    const both = lastSteps([stepped("in the kit", [3], 1), stepped("in the trip", [1, 3], 2)]);
    expect(both.undoes).toBe("Undo in the kit");
    const back = lastSteps([stepped("in the kit", [3], 0), stepped("in the trip", [1, 3], 1)]);
    expect(back.redoes).toBe("Redo in the kit");
  });
  it("is done by its own document", () => {
    const [trip, kit] = [stepped("in the trip", [1], 1), stepped("in the kit", [2], 1)];
    lastSteps([trip, kit]).undo();
    expect([trip.undo.mock.calls.length, kit.undo.mock.calls.length]).toEqual([0, 1]);
    const none = lastSteps([{ ...trip, state: undefined }]);
    none.undo();
    none.redo();
    expect(none).toMatchObject({ canUndo: false, canRedo: false });
  });
});
