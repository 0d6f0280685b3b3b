import type { KeyboardEvent } from "react";
import { type Clock, MINUTE_MS } from "../../domain/clock";
import type { Rehearsal } from "../../domain/types";
import type { Hand } from "./useHand";

interface Props {
  hand: Hand;
  window: { startMs: number; endMs: number };
  rehearsal: Rehearsal;
  clock: Clock;
}

const STEP_MS = 5 * MINUTE_MS;

/** The hand for the keyboard: arrows five minutes, Page a stop, Home and End the day. */
export function HandSlider({ hand, window, rehearsal, clock }: Props) {
  const { at: handMs, pinned, move: moveHand, togglePin } = hand;
  const laid = rehearsal.items.find((one) => one.start_ms <= handMs && handMs < one.end_ms);
  const stops = rehearsal.items.filter((one) => one.kind === "stop").map((one) => one.start_ms);
  const onKey = (event: KeyboardEvent) => {
    const to: Record<string, number | undefined> = {
      ArrowDown: handMs + STEP_MS,
      ArrowRight: handMs + STEP_MS,
      ArrowUp: handMs - STEP_MS,
      ArrowLeft: handMs - STEP_MS,
      PageDown: stops.find((ms) => ms > handMs),
      PageUp: stops.findLast((ms) => ms < handMs),
      Home: window.startMs,
      End: window.endMs - 1,
    };
    if (event.key === "Enter" || event.key === " ") togglePin();
    else if (event.key in to) moveHand(to[event.key] ?? handMs);
    else return;
    event.preventDefault();
  };
  return (
    <div
      role="slider"
      tabIndex={0}
      className="hand-slider"
      aria-label="The hand: the moment that is read out"
      aria-orientation="vertical"
      aria-valuemin={0}
      aria-valuemax={Math.round(rehearsal.duration_ms / MINUTE_MS)}
      aria-valuenow={Math.round(handMs / MINUTE_MS)}
      aria-valuetext={`${clock.full(handMs)}, ${laid?.name ?? ""}`}
      onKeyDown={onKey}
      data-board="hand"
    >
      at {clock.time(handMs)}
      {pinned ? <small> pinned</small> : null}
    </div>
  );
}
