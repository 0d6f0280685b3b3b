// @vitest-environment jsdom
import { act, render, renderHook, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { describe, expect, it, vi } from "vitest";
import { useGone } from "./gone";
import { SaidGone } from "./SaidGone";

const WENT = [{ trip: "Regatta", rows: { swaps: 1 } }];

describe("what was deleted last", () => {
  it("is said at once, and what went with it when the server has said so", () => {
    const { result } = renderHook(useGone);
    act(() => result.current.tell("Battery A2"));
    expect(result.current.gone).toMatchObject({ what: "Battery A2", went: [] });
    act(() => result.current.followed([], []));
    expect(result.current.gone?.what).toBe("Battery A2");
    act(() => result.current.followed(WENT, []));
    expect(result.current.gone).toMatchObject({ what: "Battery A2", went: WENT });
  });
  it("is said no more when something else is done, and names what comes back", () => {
    const { result } = renderHook(useGone);
    act(() => result.current.tell("Battery A2"));
    act(() => result.current.forget());
    expect(result.current.gone).toBeNull();
    act(() => result.current.tell("Battery A2"));
    act(() => result.current.followed([], WENT));
    expect(result.current.gone).toMatchObject({ what: null, went: [], back: WENT });
  });
  it("stands with its way back", async () => {
    const undo = vi.fn();
    const gone = { what: "Battery A2", went: WENT, back: [], more: undefined };
    render(<SaidGone gone={gone} undo={undo} onClose={vi.fn()} />);
    expect(screen.getByRole("status").textContent).toContain(
      "Battery A2 is deleted. With it went 1 battery swap of Regatta.",
    );
    await userEvent.click(screen.getByRole("button", { name: "Bring it back" }));
    expect(undo).toHaveBeenCalledOnce();
  });
});
