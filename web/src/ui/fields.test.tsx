// @vitest-environment jsdom
import { render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { describe, expect, it, vi } from "vitest";
import { ChoiceIn, NumberIn, Pick, TextIn } from "./fields";

describe("a number with its unit", () => {
  it("is kept on Enter, with a decimal comma too", async () => {
    const onCommit = vi.fn();
    render(<NumberIn label="Mass" unit="g" value={70} min={5} max={5000} onCommit={onCommit} />);
    const field = screen.getByLabelText("Mass, g");
    await userEvent.clear(field);
    await userEvent.type(field, "71,5{Enter}");
    expect(onCommit).toHaveBeenCalledExactlyOnceWith(71.5);
  });
  it.each([
    ["4", "From 5 to 5000 g."],
    ["x", "That is no number."],
    [" ", "Give a number in g."],
  ])("%j is refused beside the field and not kept", async (typed, words) => {
    const onCommit = vi.fn();
    render(<NumberIn label="Mass" unit="g" value={70} min={5} max={5000} onCommit={onCommit} />);
    const field = screen.getByLabelText("Mass, g");
    await userEvent.clear(field);
    await userEvent.type(field, `${typed}{Enter}`);
    await userEvent.tab();
    expect(screen.getByText(words)).toBeTruthy();
    expect(field.getAttribute("aria-invalid")).toBe("true");
    expect(onCommit).not.toHaveBeenCalled();
  });
  it.each([
    ["4", "assumed 4"],
    ["by mass", "assumed by mass"],
    ["not known", "not known"],
  ])("emptied, it is %s again where that is allowed", async (assumed, shown) => {
    const onClear = vi.fn();
    const kept = { value: 3, min: 0, max: 9, onCommit: vi.fn(), onClear };
    render(<NumberIn label="Boots in" unit="s" assumed={assumed} {...kept} />);
    const field = screen.getByLabelText("Boots in, s");
    await userEvent.clear(field);
    await userEvent.tab();
    expect(onClear).toHaveBeenCalledOnce();
    expect(field.getAttribute("placeholder")).toBe(shown);
  });
  it("whole numbers stay whole", async () => {
    render(
      <NumberIn label="Size" unit="GB" value={64} min={1} max={512} whole onCommit={vi.fn()} />,
    );
    await userEvent.type(screen.getByLabelText("Size, GB"), ".5");
    expect(screen.getByText("Give a whole number.")).toBeTruthy();
  });
});

describe("a text", () => {
  it("is kept once when the field is left, and not when nothing changed", async () => {
    const onCommit = vi.fn();
    render(<TextIn label="Name" value="Chin" onCommit={onCommit} />);
    const field = screen.getByLabelText("Name");
    await userEvent.click(field);
    await userEvent.tab();
    expect(onCommit).not.toHaveBeenCalled();
    await userEvent.type(field, "!");
    await userEvent.tab();
    expect(onCommit).toHaveBeenCalledExactlyOnceWith("Chin!");
  });
  it("Escape takes back what was typed", async () => {
    const onCommit = vi.fn();
    render(<TextIn label="Name" value="Chin" onCommit={onCommit} />);
    await userEvent.type(screen.getByLabelText("Name"), "zzz{Escape}");
    await userEvent.tab();
    expect(onCommit).not.toHaveBeenCalled();
    expect(screen.getByLabelText<HTMLInputElement>("Name").value).toBe("Chin");
  });
});

describe("one of a few", () => {
  it("a value that is not among them stands there as missing", async () => {
    const onCommit = vi.fn();
    render(
      <ChoiceIn
        label="Mode"
        value="gone"
        choices={[{ value: "m", name: "4K30" }]}
        onCommit={onCommit}
      />,
    );
    expect(screen.getByText("gone (missing)")).toBeTruthy();
    await userEvent.selectOptions(screen.getByLabelText("Mode"), "m");
    expect(onCommit).toHaveBeenCalledExactlyOnceWith("m");
  });
  it("a row of buttons says which is pressed", async () => {
    const onPick = vi.fn();
    render(
      <Pick
        label="How"
        value="off"
        choices={[
          { value: "off", name: "off" },
          { value: "roll", name: "roll", note: "+5 min" },
        ]}
        onPick={onPick}
      />,
    );
    expect(screen.getByRole("button", { name: "off" }).getAttribute("aria-pressed")).toBe("true");
    await userEvent.click(screen.getByRole("button", { name: /roll/ }));
    expect(onPick).toHaveBeenCalledExactlyOnceWith("roll");
  });
});
