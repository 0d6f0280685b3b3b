// @vitest-environment jsdom
import { act, fireEvent, render, screen } from "@testing-library/react";
import { beforeEach, describe, expect, it, vi } from "vitest";
import { CommandKeeper } from "./CommandKeeper";
import { type Command, isLetter, matches, useCommands } from "./commands";

function key(keyName: string, more: Partial<KeyboardEventInit> = {}): KeyboardEvent {
  return new KeyboardEvent("keydown", { key: keyName, ...more });
}

describe("keys", () => {
  it.each([
    ["Ctrl+Z", key("z", { ctrlKey: true }), true],
    ["Ctrl+Z", key("z", { metaKey: true }), true],
    ["Ctrl+Z", key("z"), false],
    ["Ctrl+Z", key("Z", { ctrlKey: true, shiftKey: true }), false],
    ["Ctrl+Shift+Z", key("Z", { ctrlKey: true, shiftKey: true }), true],
    ["Ctrl+Alt+K", key("k", { ctrlKey: true, altKey: true }), true],
    ["Ctrl+Alt+K", key("k", { ctrlKey: true }), false],
    ["N", key("n"), true],
    ["N", key("N", { shiftKey: true }), false],
    ["?", key("?", { shiftKey: true }), true],
  ])("%s", (keys, event, does) => {
    expect(matches(event, keys)).toBe(does);
  });
  it("single letters are told from the rest", () => {
    expect([isLetter("N"), isLetter("?"), isLetter("Ctrl+Z")]).toEqual([true, false, false]);
  });
});

const run = vi.fn();
const COMMANDS: readonly Command[] = [
  { name: "Go to Kit", keys: "Ctrl+Alt+K", allowed: true, run },
  { name: "Add a leg", keys: "Ctrl+Enter", allowed: true, run },
  { name: "Next gap", keys: "N", allowed: true, run, anywhere: true },
  { name: "Split the leg", keys: "S", allowed: true, run },
  { name: "Undo", keys: "Ctrl+Z", allowed: false, run },
];

function Place() {
  useCommands("place", COMMANDS);
  return (
    <>
      <div data-board="x" tabIndex={0}>
        board
      </div>
      <div role="dialog" aria-modal="true">
        <button>sure?</button>
      </div>
      <input aria-label="name" />
    </>
  );
}

describe("the keeper of commands", () => {
  beforeEach(() => {
    run.mockClear();
    localStorage.clear();
    render(
      <CommandKeeper>
        <Place />
      </CommandKeeper>,
    );
  });
  it("runs a letter that looks from anywhere, but not from a question that waits", () => {
    fireEvent.keyDown(document.body, { key: "n" });
    fireEvent.keyDown(screen.getByText("board"), { key: "n" });
    expect(run).toHaveBeenCalledTimes(2);
    fireEvent.keyDown(screen.getByText("sure?"), { key: "n" });
    expect(run).toHaveBeenCalledTimes(2);
  });
  it("runs a letter that changes something only while the board is focused", () => {
    fireEvent.keyDown(document.body, { key: "s" });
    expect(run).not.toHaveBeenCalled();
    fireEvent.keyDown(screen.getByText("board"), { key: "s" });
    expect(run).toHaveBeenCalledTimes(1);
  });
  it("never takes a letter away from someone who types", () => {
    fireEvent.keyDown(screen.getByLabelText("name"), { key: "n" });
    expect(run).not.toHaveBeenCalled();
  });
  it("leaves a text by keys that type nothing, and keeps what AltGr types", () => {
    const name = screen.getByLabelText("name");
    fireEvent.keyDown(name, { key: "k", ctrlKey: true, altKey: true, modifierAltGraph: true });
    expect(run).not.toHaveBeenCalled();
    name.focus();
    fireEvent.keyDown(name, { key: "k", ctrlKey: true, altKey: true });
    expect(document.activeElement).toBe(document.body);
    fireEvent.keyDown(name, { key: "Enter", ctrlKey: true });
    expect(run).toHaveBeenCalledTimes(2);
  });
  it("runs nothing that is not allowed", () => {
    fireEvent.keyDown(screen.getByText("board"), { key: "z", ctrlKey: true });
    expect(run).not.toHaveBeenCalled();
  });
  it("lists every command, finds it by name, and turns letters off", async () => {
    fireEvent.keyDown(screen.getByText("board"), { key: "?", shiftKey: true });
    const wanted = await screen.findByLabelText("Find by name");
    act(() => fireEvent.change(wanted, { target: { value: "gap" } }));
    expect(screen.queryByRole("button", { name: "Undo" })).toBeNull();
    act(() => fireEvent.click(screen.getByRole("checkbox")));
    fireEvent.click(screen.getByRole("button", { name: "Next gap" }));
    expect(run).toHaveBeenCalledTimes(1);
    fireEvent.keyDown(screen.getByText("board"), { key: "n" });
    expect(run).toHaveBeenCalledTimes(1);
    expect(localStorage.getItem("tumbrel.letters")).toBe("off");
  });
});
