import type { Rehearsal, Trip } from "./types";

export const MINUTE_MS = 60_000;
export const DAY_MS = 86_400_000;

export interface Clock {
  /** "17:15" */
  time(ms: number): string;
  /** Day of the trip, from 1. */
  day(ms: number): number;
  /** "Sat 12 June" */
  date(ms: number): string;
  /** "day 2, 17:15", without the day on day 1. */
  full(ms: number): string;
}

/** Local clock of a trip in an IANA zone; ms are counted from its start. */
export function clockOf(zone: string, startUtc: string): Clock {
  const start = Date.parse(startUtc);
  const time = new Intl.DateTimeFormat("en-GB", {
    timeZone: zone,
    hour: "2-digit",
    minute: "2-digit",
  });
  const date = new Intl.DateTimeFormat("en-GB", {
    timeZone: zone,
    weekday: "short",
    day: "numeric",
    month: "long",
  });
  const ymd = new Intl.DateTimeFormat("en-CA", {
    timeZone: zone,
    year: "numeric",
    month: "2-digit",
    day: "2-digit",
  });
  const dayNumber = (ms: number) =>
    Math.round(Date.parse(`${ymd.format(start + ms)}T00:00:00Z`) / DAY_MS);
  const first = dayNumber(0);
  const clock: Clock = {
    time: (ms) => time.format(start + ms),
    day: (ms) => dayNumber(ms) - first + 1,
    date: (ms) => date.format(start + ms),
    full: (ms) => {
      const day = clock.day(ms);
      return day > 1 ? `day ${String(day)}, ${clock.time(ms)}` : clock.time(ms);
    },
  };
  return clock;
}

export interface DayWindow {
  number: number;
  startMs: number;
  endMs: number;
}

/** Days to look at: each ends at the waking after its midnight when someone sleeps over it. */
export function dayWindows(trip: Trip, rehearsal: Rehearsal, clock: Clock): DayWindow[] {
  const cuts = midnights(rehearsal.duration_ms, clock).map((midnight) =>
    wakingAfter(trip, rehearsal, midnight),
  );
  const edges = [
    0,
    ...new Set(cuts.filter((ms) => ms > 0 && ms < rehearsal.duration_ms)),
    rehearsal.duration_ms,
  ];
  return edges.slice(0, -1).map((startMs, place) => ({
    number: place + 1,
    startMs,
    endMs: edges[place + 1] ?? rehearsal.duration_ms,
  }));
}

function midnights(durationMs: number, clock: Clock): number[] {
  const found: number[] = [];
  let day = clock.day(0);
  for (let ms = 0; ms < durationMs; ms += 15 * MINUTE_MS) {
    const here = clock.day(ms);
    if (here === day) continue;
    day = here;
    let exact = ms;
    while (clock.day(exact - MINUTE_MS) === here) exact -= MINUTE_MS;
    found.push(exact);
  }
  return found;
}

function wakingAfter(trip: Trip, rehearsal: Rehearsal, midnight: number): number {
  const laid = rehearsal.items.find((one) => one.start_ms <= midnight && midnight < one.end_ms);
  const item = trip.items.find((one) => one.id === laid?.id);
  if (laid === undefined || item?.kind !== "stop" || !item.asleep) return midnight;
  const asleep = laid.start_ms + item.asleep.start_s * 1000;
  const awake = asleep + item.asleep.duration_s * 1000;
  return asleep <= midnight && midnight < awake ? awake : midnight;
}

/** A moment as the local clock of a zone writes it in a document: "2027-06-12T08:00:00". */
export function localOf(zone: string, iso: string): string {
  const parts = new Intl.DateTimeFormat("sv-SE", {
    timeZone: zone,
    dateStyle: "short",
    timeStyle: "medium",
  }).format(Date.parse(iso));
  return parts.replace(" ", "T");
}
