// @vitest-environment jsdom
import { screen, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { describe, expect, it } from "vitest";
import { withValue } from "../../testing/held";
import { DOCUMENT, powered } from "../../testing/samples";
import { Power } from "./Power";

const kit = powered(DOCUMENT.kit);
const shelf = () => withValue(kit, (value, edit) => <Power kit={value} editKit={edit} />);

async function type(within_: HTMLElement, label: string, text: string) {
  const field = within(within_).getByLabelText(label);
  await userEvent.clear(field);
  await userEvent.type(field, `${text}{Enter}`);
}

describe("what keeps cameras going", () => {
  it("a pocket that goes leaves what lay in it in the bag", async () => {
    const held = shelf();
    await userEvent.click(screen.getByRole("button", { name: "Delete pocket Vest" }));
    expect(held.now().pockets).toEqual([]);
    expect(held.now().sources[0]).toMatchObject({ id: "slab", pocket: null });
  });
  it("a bank that goes leaves its loads to the first bank there is", async () => {
    const held = shelf();
    await userEvent.click(screen.getByRole("button", { name: "Delete source Slab" }));
    expect(held.now().loads[0]?.bank).toBeNull();
  });
  it("ports are typed as watts, one after the other", async () => {
    const held = shelf();
    const slab = screen.getByRole("listitem", { name: "source Slab" });
    await type(slab, "Ports, W", "18 + 10");
    await type(slab, "In all, W", "20");
    expect(held.now().sources[0]).toMatchObject({ ports: [18, 10], total_w: 20 });
    await type(slab, "Ports, W", "many");
    expect(within(slab).getByText("Like 18, 10: watts of each port.")).toBeTruthy();
    expect(held.now().sources[0]?.ports).toEqual([18, 10]);
  });
  it("a bank tells what it really gives: capacity x 3.7 V x 0.85", () => {
    shelf();
    expect(screen.getByText("gives about 31 W h")).toBeTruthy();
  });
  it("each kind of source is added with the fields of its kind", async () => {
    const held = shelf();
    for (const kind of ["power bank", "vehicle socket", "dynamo", "solar panel"])
      await userEvent.click(screen.getByRole("button", { name: `Add a ${kind}` }));
    expect(held.now().sources.map((one) => one.kind)).toEqual([
      "bank",
      "mains",
      "panel",
      "bank",
      "vehicle",
      "dynamo",
      "panel",
    ]);
    expect(new Set(held.now().sources.map((one) => one.id)).size).toBe(7);
    const dynamo = screen.getByRole("listitem", { name: "source dynamo" });
    expect(within(dynamo).getByLabelText("Rated, W")).toBeTruthy();
    expect(within(dynamo).queryByLabelText("Tilt, °")).toBeNull();
  });
  it("a charger always takes one family at least", async () => {
    const held = shelf();
    const dock = screen.getByRole("listitem", { name: "charger Dock" });
    await userEvent.click(within(dock).getByLabelText("takes A"));
    expect(held.now().chargers[0]?.families).toEqual(["a"]);
    await userEvent.click(within(dock).getByLabelText("all bays at once"));
    await type(dock, "One bay, W", "5");
    expect(held.now().chargers[0]).toMatchObject({ together: false, bay_w: 5 });
  });
  it("a drive's room, cable and speed are kept", async () => {
    const held = shelf();
    const disk = screen.getByRole("listitem", { name: "drive Disk" });
    await type(disk, "Free, GB", "250");
    await type(disk, "Cable, MB/s", "12,5");
    await userEvent.selectOptions(within(disk).getByLabelText("Kind"), "phone");
    expect(held.now().drives[0]).toMatchObject({ free_gb: 250, link_mb_s: 12.5, kind: "phone" });
  });
  it("what is out of range is refused and nothing changes", async () => {
    const held = shelf();
    await type(screen.getByRole("listitem", { name: "load Phone" }), "A day, W h", "9999");
    expect(screen.getByText("From 0 to 2000 W h.")).toBeTruthy();
    expect(held.now()).toEqual(kit);
  });
});
