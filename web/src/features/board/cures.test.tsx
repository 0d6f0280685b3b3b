// @vitest-environment jsdom
import { act, cleanup, fireEvent, render, screen } from "@testing-library/react";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { streamCures } from "../../api/cures";
import type { Cure } from "../../domain/types";
import { DOCUMENT } from "../../testing/samples";
import { Cures } from "./Cures";

vi.mock("../../api/cures", () => ({ streamCures: vi.fn() }));

const cure = (text: string) =>
  ({
    text,
    closes: true,
    leaves: "then no must is broken",
    gives_up: text === "d",
    side: [],
  }) as unknown as Cure;
const TARGET = { camera: "chin", item: "way", code: null, path: "" };
type Line = Parameters<Parameters<typeof streamCures>[1]>[0];
let say: (line: Line) => void = () => undefined;

vi.mock("../../domain/cures", async (actual) => ({
  ...(await actual<object>()),
  cureFigures: () => "",
}));

const texts = () => screen.getAllByRole("listitem").map((one) => one.textContent.slice(0, 1));

describe("a list of cures", () => {
  beforeEach(() => {
    vi.mocked(streamCures).mockImplementation((_asked, onLine) => {
      say = onLine;
      return new Promise(() => undefined);
    });
    const none = () => undefined;
    render(<Cures document={DOCUMENT} tried={null} onTry={none} onKeep={none} target={TARGET} />);
    act(() => ["a", "b", "c"].forEach((one) => say({ cure: cure(one), outcome: null })));
  });
  afterEach(cleanup);
  const end = () =>
    act(() => say({ cure: null, outcome: { tried: 3, order: [2, 0, 1], why: "" } } as Line));

  it("puts what asks for less last, under Giving up, and tells what each leaves", () => {
    act(() => ["d", "e"].forEach((one) => say({ cure: cure(one), outcome: null })));
    expect(texts()).toEqual(["a", "b", "c", "e", "d"]);
    expect(screen.getByRole("heading", { name: "Giving up" })).toBeTruthy();
    expect(screen.getAllByText("Then no must is broken.")).toHaveLength(5);
  });

  it("stands in the order of worth when the search is through", () => {
    expect(texts()).toEqual(["a", "b", "c"]);
    end();
    expect(texts()).toEqual(["c", "a", "b"]);
  });
  it("never moves under the pointer, but when that has left", () => {
    const list = screen.getByRole("group", { name: "Cures" });
    fireEvent.pointerEnter(list);
    end();
    expect(texts()).toEqual(["a", "b", "c"]);
    fireEvent.pointerLeave(list);
    expect(texts()).toEqual(["c", "a", "b"]);
    fireEvent.pointerEnter(list);
    expect(texts()).toEqual(["c", "a", "b"]);
  });
});
