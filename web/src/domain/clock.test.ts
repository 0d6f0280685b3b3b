import { describe, expect, it } from "vitest";
import { DOCUMENT, laid, REHEARSAL } from "../testing/samples";
import { localOf, clockOf, dayWindows } from "./clock";
import type { Item, Rehearsal, Trip } from "./types";

const HOUR = 3_600_000;

describe("the clock of a trip", () => {
  it("is local, with the day named from the second on", () => {
    const clock = clockOf("Etc/GMT+2", "2027-06-12T08:00:00Z");
    expect(clock.time(0)).toBe("06:00");
    expect(clock.full(0)).toBe("06:00");
    expect(clock.day(18 * HOUR)).toBe(2);
    expect(clock.full(25 * HOUR)).toBe("day 2, 07:00");
    expect(clock.date(0)).toBe("Sat 12 June");
  });
  it("goes through a clock change", () => {
    const clock = clockOf("CET", "2027-10-30T23:00:00Z");
    expect(clock.time(0)).toBe("01:00");
    expect(clock.time(4 * HOUR)).toBe("04:00");
  });
});

function night(asleepFromMin: number, asleepMin: number): { trip: Trip; rehearsal: Rehearsal } {
  const camp: Item = {
    ...(DOCUMENT.trip.items[0] as Item & { kind: "stop" }),
    duration_s: 12 * 3600,
    asleep: { start_s: asleepFromMin * 60, duration_s: asleepMin * 60 },
  };
  const trip = { ...DOCUMENT.trip, items: [camp] };
  const rehearsal = {
    ...REHEARSAL,
    start_utc: "2027-06-12T20:00:00Z",
    duration_ms: 12 * HOUR,
    items: [laid("camp", "stop", 0, 720)],
  };
  return { trip, rehearsal };
}

describe("days to look at", () => {
  it("a trip inside one day is one day", () => {
    const clock = clockOf("UTC", REHEARSAL.start_utc);
    expect(dayWindows(DOCUMENT.trip, REHEARSAL, clock)).toEqual([
      { number: 1, startMs: 0, endMs: 5_400_000 },
    ]);
  });
  it("a night slept over midnight belongs to the day before, until waking", () => {
    const { trip, rehearsal } = night(120, 420); // asleep 22:00 to 05:00
    const clock = clockOf("UTC", rehearsal.start_utc);
    expect(dayWindows(trip, rehearsal, clock).map((day) => day.endMs / HOUR)).toEqual([9, 12]);
  });
  it("awake at midnight, the day ends there", () => {
    const { trip, rehearsal } = night(300, 60); // asleep 01:00 to 02:00
    const clock = clockOf("UTC", rehearsal.start_utc);
    expect(dayWindows(trip, rehearsal, clock).map((day) => day.endMs / HOUR)).toEqual([4, 12]);
  });
});

describe("a moment on the local clock", () => {
  it.each([
    ["UTC", "2027-06-12T06:00:00"],
    ["Etc/GMT-5", "2027-06-12T11:00:00"],
    ["Etc/GMT+8", "2027-06-11T22:00:00"],
  ])("in %s is %s", (zone, local) => {
    expect(localOf(zone, "2027-06-12T06:00:00Z")).toBe(local);
  });
});
