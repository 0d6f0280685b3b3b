import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { render } from "@testing-library/react";
import { type ReactElement, useState } from "react";
import type { KeptKit, KeptTrip } from "../api/keptTrip";
import { TripContext } from "../app/TripContext";
import type { TripAndPlan } from "../domain/edits";
import type { KitState, PlanDocument, TripState } from "../domain/types";

const never = () => undefined;
const queries = new QueryClient();
const still = {
  error: null,
  conflict: null,
  keeping: "kept" as const,
  undo: never,
  redo: never,
  takeTheirs: never,
  keepMine: never,
  dismiss: never,
  retry: never,
  settled: () => Promise.resolve(),
};

/** Draw something that edits a trip, on a trip held in the test; `now()` is what it has become. */
export function withTrip(start: PlanDocument, draw: (kept: KeptTrip) => ReactElement) {
  let current: TripAndPlan = { trip: start.trip, plan: start.plan };
  function Held() {
    const [doc, setDoc] = useState(current);
    const [named, setNamed] = useState({ name: "Kit", kit: start.kit });
    current = doc;
    const state = { id: 1, kit_id: 1, version: 1, kit: named.kit, ...doc } as unknown as TripState;
    const kitState = { id: 1, version: 1, ...named } as unknown as KitState;
    const kept: KeptTrip = { ...still, state, edit: (change) => setDoc((old) => change(old)) };
    const kit: KeptKit = {
      ...still,
      state: kitState,
      edit: (change) => setNamed((old) => change(old)),
    };
    const rehearsing = { shown: null, good: null, asked: null, late: false, error: null };
    return (
      <QueryClientProvider client={queries}>
        <TripContext value={{ id: 1, kept, kit, rehearsing }}>{draw(kept)}</TripContext>
      </QueryClientProvider>
    );
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
