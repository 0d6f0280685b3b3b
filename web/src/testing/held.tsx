import { render } from "@testing-library/react";
import { type ReactElement, useState } from "react";
import type { KeptTrip } from "../api/keptTrip";
import type { TripAndPlan } from "../domain/edits";
import type { PlanDocument, TripState } from "../domain/types";

const never = () => undefined;

/** Draw something that edits a trip, on a trip held in the test; `now()` is what it has become. */
export function withTrip(start: PlanDocument, draw: (kept: KeptTrip) => ReactElement) {
  let current: TripAndPlan = { trip: start.trip, plan: start.plan };
  function Held() {
    const [doc, setDoc] = useState(current);
    current = doc;
    const state = { id: 1, kit_id: 1, version: 1, ...doc } as unknown as TripState;
    return draw({
      state,
      error: null,
      conflict: null,
      asksRelease: null,
      edit: (change) => setDoc((old) => change(old)),
      undo: never,
      redo: never,
      takeTheirs: never,
      keepMine: never,
      dismiss: never,
      retry: never,
      settled: () => Promise.resolve(),
    });
  }
  render(<Held />);
  return { now: () => current };
}

/** Draw something that edits a value held in the test; `now()` is what it has become. */
export function withValue<Value>(
  start: Value,
  draw: (value: Value, edit: (change: (old: Value) => Value) => void) => ReactElement,
) {
  let current = start;
  function Held() {
    const [value, setValue] = useState(start);
    current = value;
    return draw(value, setValue);
  }
  render(<Held />);
  return { now: () => current };
}
