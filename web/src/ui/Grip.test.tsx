// @vitest-environment jsdom
import { fireEvent, render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { useState } from "react";
import { beforeEach, describe, expect, it, vi } from "vitest";
import { Grip } from "./Grip";

const onKeep = vi.fn();
const onLeave = vi.fn();

function Held() {
  const [value, setValue] = useState<number | null>(null);
  return (
    <Grip
      label="End"
      value={value ?? 30}
      min={5}
      max={120}
      step={5}
      words={`${String(value ?? 30)} min`}
      dragged={(px) => 30 + px}
      onMove={setValue}
      onKeep={() => onKeep(value)}
      onLeave={() => {
        setValue(null);
        onLeave();
      }}
      moving={value !== null}
      className="grip"
      style={{}}
    />
  );
}

describe("something that is pulled", () => {
  beforeEach(() => {
    vi.clearAllMocks();
    Element.prototype.setPointerCapture = vi.fn();
    render(<Held />);
    screen.getByRole("slider").focus();
  });
  const said = () => screen.getByRole("slider").getAttribute("aria-valuetext");
  it("goes by steps and pages, never past its ends, and is kept by Enter", async () => {
    await userEvent.keyboard("{ArrowDown}{PageDown}");
    expect(said()).toBe("85 min");
    await userEvent.keyboard("{End}{ArrowDown}");
    expect(said()).toBe("120 min");
    await userEvent.keyboard("{Home}{ArrowUp}{Enter}");
    expect(onKeep).toHaveBeenCalledExactlyOnceWith(5);
  });
  it("returns by Escape", async () => {
    await userEvent.keyboard("{ArrowDown}{Escape}");
    expect(onLeave).toHaveBeenCalledOnce();
    expect(said()).toBe("30 min");
  });
  it("follows the pointer and is kept when it is let go, once", () => {
    const grip = screen.getByRole("slider");
    fireEvent.pointerDown(grip, { clientY: 100, pointerId: 1 });
    fireEvent.pointerMove(grip, { clientY: 125 });
    expect(said()).toBe("55 min");
    fireEvent.pointerUp(grip);
    expect(onKeep).toHaveBeenCalledExactlyOnceWith(55);
  });
  it("a press without a move keeps nothing", () => {
    const grip = screen.getByRole("slider");
    fireEvent.pointerDown(grip, { clientY: 100, pointerId: 1 });
    fireEvent.pointerUp(grip);
    expect(onKeep).not.toHaveBeenCalled();
  });
});
