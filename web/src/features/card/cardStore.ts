import { addTicks } from "../../api/card";
import type { Schemas } from "../../api/client";
import { joined, localStore, type Tick, type TickStore } from "../../pocket/ticks";

const AGAIN_MS = 15_000;

export interface CardStore extends TickStore {
  /** Ticks that came from elsewhere: kept here, and sent. */
  take: (ticks: readonly Tick[]) => void;
  /** All that the server has. */
  know: (ticks: readonly Tick[]) => void;
  end: () => void;
}

/** Ticks kept here first and then by the server: what could not be sent is sent again. */
export function cardStore(
  trip: number,
  known: readonly Schemas["Tick"][],
  onChange: () => void,
): CardStore {
  const here = localStore(`tumbrel-ticks-${String(trip)}`);
  let there: readonly Tick[] = known;
  let unsent = false;
  let timer: ReturnType<typeof setTimeout> | undefined;
  const all = () => joined(there, here.all());
  const send = async () => {
    const kept = new Set(there.map((one) => one.id));
    const ticks = here.all().filter((one) => !kept.has(one.id));
    if (ticks.length === 0) return;
    const told = await addTicks(trip, ticks).catch(() => null);
    const wasUnsent = unsent;
    unsent = told === null;
    if (told !== null) there = joined(there, told);
    else {
      clearTimeout(timer);
      timer = setTimeout(() => void send(), AGAIN_MS);
    }
    if (unsent !== wasUnsent) onChange();
  };
  const heal = () => void send();
  addEventListener("online", heal);
  void send();
  return {
    all,
    add: (tick) => {
      here.add(tick);
      void send();
    },
    take: (ticks) => {
      for (const one of ticks) here.add(one);
      void send();
    },
    know: (ticks) => {
      there = joined(there, ticks);
    },
    said: () =>
      unsent
        ? "The server cannot be reached: ticks are kept here and sent when it is back."
        : "Ticks are kept with the trip.",
    end: () => {
      removeEventListener("online", heal);
      clearTimeout(timer);
    },
  };
}
