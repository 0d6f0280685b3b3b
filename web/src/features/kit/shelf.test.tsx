// @vitest-environment jsdom
import { screen, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { useState } from "react";
import { describe, expect, it, vi } from "vitest";
import { kitFaults, withNewCamera, firstAsked } from "../../domain/kitEdits";
import type { Kit } from "../../domain/types";
import { withValue } from "../../testing/held";
import { DOCUMENT, powered } from "../../testing/samples";
import { CellShelf } from "./CellShelf";
import { Lengths } from "./Lengths";
import { NewCamera } from "./NewCamera";
import { type Opened, openedAt } from "./opened";
import { UnitSheet } from "./UnitSheet";
import { Wells } from "./Wells";

const kit = powered(DOCUMENT.kit);

/** The drawn shelf with the sheet of what is opened beside it. */
const shelf = () =>
  withValue(kit, (value, edit) => <Shelf kit={value} editKit={edit} fit={() => undefined} />);

interface ShelfProps {
  kit: Kit;
  editKit: (change: (old: Kit) => Kit) => void;
  fit: (camera: string, battery: string) => void;
}

function Shelf({ fit, ...shared }: ShelfProps) {
  const [opened, setOpened] = useState<Opened | null>(null);
  return (
    <main>
      <CellShelf {...shared} plan={DOCUMENT.plan} fit={fit} onOpen={setOpened} />
      <Lengths {...shared} onOpen={setOpened} />
      <Wells {...shared} onOpen={setOpened} />
      {opened === null ? null : (
        <UnitSheet key={opened.id} {...shared} opened={opened} onClose={() => setOpened(null)} />
      )}
    </main>
  );
}

async function open(name: RegExp | string) {
  await userEvent.click(screen.getByRole("button", { name }));
  return screen.getByRole("dialog");
}

async function type(within_: HTMLElement, label: string, text: string) {
  const field = within(within_).getByLabelText(label);
  await userEvent.clear(field);
  await userEvent.type(field, `${text}{Enter}`);
}

describe("what keeps cameras going", () => {
  it("a pocket that goes leaves what lay in it in the bag", async () => {
    const held = shelf();
    await open("Vest");
    await userEvent.click(screen.getByRole("button", { name: "Delete pocket Vest" }));
    expect(held.now().pockets).toEqual([]);
    expect(held.now().sources[0]).toMatchObject({ id: "slab", pocket: null });
  });
  it("a bank that goes leaves its loads to the first bank there is", async () => {
    const held = shelf();
    await open(/^Slab/);
    await userEvent.click(screen.getByRole("button", { name: "Delete source Slab" }));
    expect(held.now().loads[0]?.bank).toBeNull();
  });
  it("ports are typed as watts, one after the other", async () => {
    const held = shelf();
    const slab = await open(/^Slab/);
    await type(slab, "Ports, W", "18 + 10");
    await type(slab, "In all, W", "20");
    expect(held.now().sources[0]).toMatchObject({ ports: [18, 10], total_w: 20 });
    await type(slab, "Ports, W", "many");
    expect(within(slab).getByText("Like 18, 10: watts of each port.")).toBeTruthy();
    expect(held.now().sources[0]).toMatchObject({ ports: [18, 10] });
  });
  it("a bank tells what it really gives: capacity x 3.7 V x 0.85", async () => {
    shelf();
    await open(/^Slab/);
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
    const sheets = screen.getAllByRole("dialog");
    expect(sheets).toHaveLength(1); // what is added is open, and only that
    const dynamo = await open(/^dynamo/);
    expect(within(dynamo).getByLabelText("Rated, W")).toBeTruthy();
    expect(within(dynamo).queryByLabelText("Tilt, °")).toBeNull();
  });
  it("a charger always takes one family at least", async () => {
    const held = shelf();
    const dock = await open(/^Dock/);
    await userEvent.click(within(dock).getByLabelText("takes A"));
    expect(held.now().chargers[0]?.families).toEqual(["a"]);
    await userEvent.click(within(dock).getByLabelText("all bays at once"));
    await type(dock, "One bay, W", "5");
    expect(held.now().chargers[0]).toMatchObject({ together: false, bay_w: 5 });
  });
  it("a drive's room, cable and speed are kept", async () => {
    const held = shelf();
    const disk = await open("Disk");
    await type(disk, "Free, GB", "250");
    await type(disk, "Cable, MB/s", "12,5");
    await userEvent.selectOptions(within(disk).getByLabelText("Kind"), "phone");
    expect(held.now().drives[0]).toMatchObject({ free_gb: 250, link_mb_s: 12.5, kind: "phone" });
  });
  it("what is out of range is refused and nothing changes", async () => {
    const held = shelf();
    await type(await open("Phone"), "A day, W h", "9999");
    expect(screen.getByText("From 0 to 2000 W h.")).toBeTruthy();
    expect(held.now()).toEqual(kit);
  });
});

describe("batteries in their pockets", () => {
  const cell = (name: string) =>
    screen.getByRole("button", { name: new RegExp(`^Battery ${name}\\b`) });
  it("are lifted with Space, carried by arrows and set down", async () => {
    const held = shelf();
    cell("A1").focus();
    await userEvent.keyboard(" {ArrowRight}{ArrowLeft}{ArrowLeft}{Enter}");
    const first = held.now().pockets[0]?.id;
    expect(held.now().batteries.find((one) => one.name === "A1")?.pocket).toBe(first);
    cell("A1").focus();
    await userEvent.keyboard(" {ArrowRight}{Escape}");
    expect(held.now().batteries.find((one) => one.name === "A1")?.pocket).toBe(first);
  });
  it("are one stop of Tab, walked by arrows; where a lifted one would go is spoken", async () => {
    const held = shelf();
    const said = () => screen.getAllByRole("status")[0]?.textContent;
    await userEvent.tab();
    const pockets = document.querySelector(".cell-places") as HTMLElement;
    const [first, second] = within(pockets).getAllByRole("button");
    expect(document.activeElement).toBe(first);
    await userEvent.keyboard("{ArrowRight}");
    expect(document.activeElement).toBe(second);
    await userEvent.tab();
    expect(pockets.contains(document.activeElement)).toBe(false);
    cell("A1").focus();
    const pocket = held.now().pockets[0]?.name ?? "";
    await userEvent.keyboard(" {ArrowLeft}{ArrowLeft}{ArrowLeft}");
    expect(document.activeElement).toBe(cell("A1"));
    await userEvent.keyboard("{ArrowLeft}");
    expect(said()).toBe("No place further on takes it.");
    await userEvent.keyboard("{Enter}");
    expect(said()).toBe(`A1: ${pocket}.`);
    expect(document.activeElement).toBe(cell("A1"));
  });
  it("go into a camera of their family only", async () => {
    const fit = vi.fn();
    withValue(kit, (value, edit) => <Shelf kit={value} editKit={edit} fit={fit} />);
    cell("A1").focus();
    await userEvent.keyboard(` ${"{ArrowRight}".repeat(9)}{Enter}`);
    expect(fit).toHaveBeenCalledWith("chin", "a1");
  });
  it("open their own fields", async () => {
    const held = shelf();
    cell("A1").focus();
    await userEvent.keyboard("{Enter}");
    await type(screen.getByRole("dialog"), "Charge, %", "60");
    expect(held.now().batteries.find((one) => one.name === "A1")?.charge).toBe(0.6);
  });
});

describe("a new camera", () => {
  it("asks four things and stands with a battery and a card", async () => {
    const closed = vi.fn();
    const held = withValue(kit, (value, edit) => (
      <NewCamera kit={value} editKit={edit} onClose={closed} />
    ));
    const sheet = screen.getByRole("dialog");
    const put = async (label: string, text: string) => {
      const field = within(sheet).getByLabelText(label);
      await userEvent.clear(field);
      await userEvent.type(field, text);
    };
    await put("It is called", "Keel");
    await userEvent.selectOptions(within(sheet).getByLabelText("Its battery"), "one of its own");
    await put("which holds, mAh", "900");
    await type(sheet, "it lasts, min", "70"); // and Enter puts it on the shelf
    const camera = held.now().cameras.at(-1);
    expect(camera).toMatchObject({ name: "Keel", modes: [{ box_minutes: 70 }] });
    expect(held.now().cameras).toHaveLength(kit.cameras.length + 1);
    expect(closed).toHaveBeenCalledOnce();
    const family = held.now().families.at(-1);
    expect(family).toMatchObject({ id: camera?.battery_family, mah: 900 });
    expect(held.now().batteries.filter((one) => one.family === family?.id)).toHaveLength(1);
    expect(kitFaults(held.now())).toEqual(kitFaults(kit));
  });
  it("what cannot be meant is said at once", () => {
    const asked = withNewCamera(kit, { ...firstAsked(kit), name: "Keel", family: null }).kit;
    const mistaken = {
      ...asked,
      cameras: asked.cameras.map((one) => ({
        ...one,
        battery_family: asked.families[0]?.id ?? "",
      })),
    };
    expect(kitFaults(mistaken).join(" ")).toContain("No camera takes");
    const bare = { ...kit, batteries: [] };
    expect(kitFaults(bare)[0]).toMatch(/^Chin has no battery/);
  });
});

describe("a finding's field", () => {
  it.each([
    ["kit.batteries[0].pocket", { kind: "battery", id: "a1" }],
    ["kit.cameras[0].modes[0].fps", { kind: "mode", camera: "chin", id: "m" }],
    ["kit.cameras[0].name", { kind: "camera", id: "chin" }],
    ["kit.batteries[99]", null],
    ["trip.items[0]", null],
  ])("%s opens what holds it", (path, opened) => {
    expect(openedAt(kit, path)).toEqual(opened);
  });
});
