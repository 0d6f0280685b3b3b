// @vitest-environment jsdom
import { screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { describe, expect, it } from "vitest";
import type { Item } from "../../domain/types";
import { withValue } from "../../testing/held";
import { DOCUMENT } from "../../testing/samples";
import { MoreFields } from "./MoreFields";

const [camp, way] = DOCUMENT.trip.items as [Item, Item];
const more = (item: Item) =>
  withValue(item, (value, edit) => (
    <MoreFields item={value} path="trip.items[0]" put={(next) => edit(() => next)} />
  ));

async function type(label: string, text: string) {
  const field = screen.getByLabelText(label);
  await userEvent.clear(field);
  await userEvent.type(field, `${text}{Enter}`);
}

describe("a leg's moments, power and water", () => {
  it("speed, water, a running vehicle and one angle always are kept", async () => {
    const held = more(way);
    await type("Speed, for a dynamo, m/s", "4,2");
    await userEvent.selectOptions(screen.getByLabelText("Water"), "splashes");
    await userEvent.click(screen.getByLabelText("Vehicle runs"));
    await userEvent.click(screen.getByLabelText("Always one angle on"));
    expect(held.now()).toMatchObject({
      speed_mps: 4.2,
      wet: "splash",
      vehicle_runs: true,
      one_angle_always: true,
    });
  });
  it("a moment is added, described and deleted", async () => {
    const held = more(way);
    await userEvent.click(screen.getByRole("button", { name: "Add a moment" }));
    await type("Moment", "wing collapse");
    await type("Lasts, s", "12");
    await userEvent.selectOptions(screen.getByLabelText("Importance"), "must");
    expect(held.now().moments).toEqual([
      expect.objectContaining({ name: "wing collapse", seconds: 12, importance: "must", count: 2 }),
    ]);
    await userEvent.click(screen.getByRole("button", { name: "Delete moment wing collapse" }));
    expect(held.now().moments).toEqual([]);
  });
});

describe("a stop's socket", () => {
  it("is there from a minute on and for a while, or to the end", async () => {
    const held = more(camp);
    expect(screen.queryByLabelText("Socket gives, W")).toBeNull();
    await userEvent.click(screen.getByLabelText("Has a socket"));
    await type("Socket gives, W", "18");
    await type("from, min in", "30");
    await type("for, min", "90");
    expect(held.now()).toMatchObject({
      socket: { watts: 18, start_s: 1800, duration_s: 5400 },
    });
    await userEvent.clear(screen.getByLabelText("for, min"));
    await userEvent.tab();
    expect(held.now()).toMatchObject({ socket: { duration_s: null } });
    await userEvent.click(screen.getByLabelText("Has a socket"));
    expect(held.now()).toMatchObject({ socket: null });
  });
  it("the clear sky on a panel is a share", async () => {
    const held = more(camp);
    await type("Clear sky on a panel, %", "60");
    expect(held.now().sky).toBeCloseTo(0.6);
  });
});
