import { describe, expect, it } from "vitest";
import { DOCUMENT } from "../testing/samples";
import { freshBattery, freshFamily } from "./kitEdits";
import { freshCharger, freshGear, freshSource } from "./powerEdits";
import { socketText } from "./sockets";
import type { Kit } from "./types";

const { kit } = DOCUMENT;
const plugged: Kit = { ...kit, sources: [freshSource(kit, "mains")] };
const B = { ...freshFamily(kit), name: "B" };

describe("a socket", () => {
  it("charges nothing without a plug", () => {
    expect(socketText(kit)).toMatch(/no plug for sockets is carried/);
  });
  it("says what no charger fits", () => {
    const name = plugged.sources[0]?.name ?? "";
    expect(socketText(plugged)).toBe(
      `By ${name} it charges nothing that is carried. No charger fits A, and no camera charges it.`,
    );
    const charged = { ...plugged, chargers: [freshCharger(plugged)] };
    expect(socketText(charged)).toBe(`By ${name} it charges A in Charger.`);
    const two = { ...charged, families: [...charged.families, B] };
    expect(socketText(two)).toBe(`By ${name} it charges A in Charger.`); // B is not carried
    const both = { ...two, batteries: [...two.batteries, freshBattery(two, B)] };
    expect(socketText(both)).toBe(
      `By ${name} it charges A in Charger. No charger fits B, and no camera charges it.`,
    );
  });
  it("charges what has a port: cameras, banks and things with a battery", () => {
    const cameras = kit.cameras.map((one) => ({ ...one, charges_in_w: 5 }));
    const ported: Kit = { ...plugged, cameras, gear: [freshGear(plugged)] };
    expect(socketText(ported)).toMatch(/it charges A in Chin, microphone\.$/);
    const banked: Kit = { ...ported, sources: [...ported.sources, freshSource(ported, "bank")] };
    expect(socketText(banked)).toMatch(/A in Chin, power bank, microphone\.$/);
  });
});
