// @vitest-environment jsdom
import { act, fireEvent, render, screen } from "@testing-library/react";
import { afterEach, beforeEach, expect, it, vi } from "vitest";
import { STAYS_MS, useStays } from "./useStays";

function Notice({ isThere }: { isThere: boolean }) {
  const { isShown, hold, letGo } = useStays(isThere);
  return isShown ? (
    <div data-testid="notice" {...hold}>
      <button type="button" onClick={letGo}>
        Again
      </button>
    </div>
  ) : null;
}

const passes = (ms: number) => act(() => vi.advanceTimersByTime(ms));
const notice = () => screen.queryByTestId("notice");

beforeEach(() => {
  vi.useFakeTimers();
});
afterEach(() => {
  vi.useRealTimers();
});

it("what goes by itself stays a moment, and then goes", () => {
  const { rerender } = render(<Notice isThere={false} />);
  expect(notice()).toBeNull();
  rerender(<Notice isThere />);
  passes(10 * STAYS_MS);
  rerender(<Notice isThere={false} />);
  passes(STAYS_MS - 1);
  expect(notice()).not.toBeNull();
  passes(1);
  expect(notice()).toBeNull();
});

it.each([
  ["pointed at", fireEvent.pointerEnter, fireEvent.pointerLeave],
  ["focused", fireEvent.focus, fireEvent.blur],
])("while it is %s it stays, and a moment after", (_, hold, leave) => {
  const { rerender } = render(<Notice isThere />);
  hold(screen.getByTestId("notice"));
  rerender(<Notice isThere={false} />);
  passes(10 * STAYS_MS);
  leave(screen.getByTestId("notice"));
  passes(STAYS_MS - 1);
  expect(notice()).not.toBeNull();
  passes(1);
  expect(notice()).toBeNull();
});

it("pressed, it is not held by the pointer that pressed it", () => {
  const { rerender } = render(<Notice isThere />);
  fireEvent.pointerEnter(screen.getByTestId("notice"));
  fireEvent.click(screen.getByText("Again"));
  expect(notice()).not.toBeNull();
  rerender(<Notice isThere={false} />);
  passes(STAYS_MS);
  expect(notice()).toBeNull();
});

it("let go once it could go, it goes at once", () => {
  const { rerender } = render(<Notice isThere />);
  rerender(<Notice isThere={false} />);
  fireEvent.click(screen.getByText("Again"));
  expect(notice()).toBeNull();
});
