// @vitest-environment jsdom
import { queryOptions } from "@tanstack/react-query";
import { act, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { beforeEach, describe, expect, it, vi } from "vitest";
import { queries } from "../../api/queries";
import type { Trip, TripState } from "../../domain/types";
import { withTrip } from "../../testing/held";
import { DOCUMENT } from "../../testing/samples";
import { TripFields } from "./TripFields";

/** What the server was asked and has not answered yet, by longitude. */
let waiting: Map<number, (time_zone: string | null) => void>;

beforeEach(() => {
  waiting = new Map();
  vi.spyOn(queries, "zone").mockImplementation((latitude: number, longitude: number) =>
    queryOptions({
      queryKey: ["zone", latitude, longitude],
      queryFn: () =>
        new Promise((told, refuse) => {
          waiting.set(longitude, (zone) =>
            zone === null ? refuse(new TypeError("offline")) : told({ time_zone: zone }),
          );
        }),
      staleTime: Infinity,
    }),
  );
});

async function answer(longitude: number, zone: string | null) {
  await vi.waitFor(() => expect(waiting.has(longitude)).toBe(true));
  await act(async () => {
    waiting.get(longitude)?.(zone);
    await new Promise((done) => setTimeout(done, 20));
  });
}

async function type(label: string, text: string) {
  const field = screen.getByLabelText(label);
  await userEvent.clear(field);
  await userEvent.type(field, `${text}{Enter}`);
}

const LONGITUDE = "Longitude, °";

/** Each test has places of its own: what a place's zone is, is asked once. */
function at(longitude: number | null, time_zone: string) {
  const place = longitude === null ? null : { latitude: 40, longitude, height_m: 0 };
  const trip: Trip = { ...DOCUMENT.trip, place, time_zone };
  return withTrip({ ...DOCUMENT, trip }, (kept) => (
    <TripFields
      trip={(kept.state as TripState).trip}
      put={(part) => kept.edit((doc) => ({ ...doc, trip: { ...doc.trip, ...part } }))}
    />
  ));
}

describe("a clock that nobody has chosen", () => {
  it("goes with the place, however late the server says what it was", async () => {
    const held = at(-30, "Etc/GMT+2");
    await type(LONGITUDE, "-46");
    await answer(-46, "Etc/GMT+3");
    expect(held.now().trip.time_zone).toBe("Etc/GMT+2");
    await answer(-30, "Etc/GMT+2");
    expect(held.now().trip.time_zone).toBe("Etc/GMT+3");
  });
  it("is that of the last of two moves, answered in either order", async () => {
    const held = at(null, "UTC");
    await type(LONGITUDE, "20");
    await type(LONGITUDE, "35");
    await answer(35, "Etc/GMT-2");
    await answer(20, "Etc/GMT-1");
    expect(held.now().trip.time_zone).toBe("Etc/GMT-2");
    await type(LONGITUDE, "36");
    await type(LONGITUDE, "50");
    await answer(36, "Etc/GMT-2");
    await answer(50, "Etc/GMT-3");
    expect(held.now().trip.time_zone).toBe("Etc/GMT-3");
  });
});

describe("a clock that stands", () => {
  it("is one that was chosen; the place's is offered", async () => {
    const held = at(-31, "Etc/GMT-5");
    await type(LONGITUDE, "-47");
    await answer(-31, "Etc/GMT+2");
    await answer(-47, "Etc/GMT+3");
    expect(held.now().trip.time_zone).toBe("Etc/GMT-5");
    await userEvent.click(screen.getByText("Take the place’s time zone, Etc/GMT+3"));
    expect(held.now().trip.time_zone).toBe("Etc/GMT+3");
  });
  it("is one that was chosen while the server was asked", async () => {
    const held = at(null, "UTC");
    await type(LONGITUDE, "61");
    await type("Time zone", "Etc/GMT-9");
    await answer(61, "Etc/GMT-4");
    expect(held.now().trip.time_zone).toBe("Etc/GMT-9");
  });
  it("stays when the place is taken away, and the next place starts afresh", async () => {
    const held = at(null, "UTC");
    await type(LONGITUDE, "75");
    await userEvent.clear(screen.getByLabelText(LONGITUDE));
    await userEvent.keyboard("{Enter}");
    await answer(75, "Etc/GMT-5");
    expect(held.now().trip).toMatchObject({ place: null, time_zone: "UTC" });
    await type("Time zone", "Etc/GMT-9");
    await type(LONGITUDE, "90");
    await answer(90, "Etc/GMT-6");
    expect(held.now().trip.time_zone).toBe("Etc/GMT-9");
  });
  it("is the one there is when the server is away", async () => {
    const held = at(null, "UTC");
    await type(LONGITUDE, "105");
    await answer(105, null);
    expect(held.now().trip).toMatchObject({ place: { longitude: 105 }, time_zone: "UTC" });
  });
});
