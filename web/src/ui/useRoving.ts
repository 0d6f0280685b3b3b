import { type KeyboardEvent, type RefObject, useEffect, useRef } from "react";

const STEPS: Record<string, number | undefined> = {
  ArrowDown: 1,
  ArrowRight: 1,
  ArrowUp: -1,
  ArrowLeft: -1,
};

/**
 * A list of buttons or links as one stop of Tab: arrows, Home and End go from one to the next, and
 * Tab comes back to the last. What opens between them keeps its own stops.
 */
export function useRoving(list: RefObject<HTMLElement | null>, selector: string) {
  const last = useRef<HTMLElement | null>(null);
  const all = () => [...(list.current?.querySelectorAll<HTMLElement>(selector) ?? [])];
  const mark = (chosen: HTMLElement | undefined) => {
    for (const one of all()) one.tabIndex = one === chosen ? 0 : -1;
  };
  useEffect(() => {
    const buttons = all();
    const here = buttons.find((one) => one.getAttribute("aria-current") === "page");
    mark(buttons.find((one) => one === last.current) ?? here ?? buttons[0]);
  });
  return {
    onFocus: (event: { target: EventTarget }) => {
      const found = all().find((one) => one === event.target);
      if (found === undefined) return;
      last.current = found;
      mark(found);
    },
    onKeyDown: (event: KeyboardEvent) => {
      const buttons = all();
      const at = buttons.findIndex((one) => one === event.target);
      if (at < 0) return;
      const step = STEPS[event.key];
      const to =
        step !== undefined
          ? at + step
          : event.key === "Home"
            ? 0
            : event.key === "End"
              ? buttons.length - 1
              : at;
      if (to === at && step === undefined) return;
      event.preventDefault();
      buttons[Math.min(buttons.length - 1, Math.max(0, to))]?.focus();
    },
  };
}
