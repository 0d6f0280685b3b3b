import { freshKey, kitKeys, kitNames } from "./edits";
import { copyName } from "./kitEdits";
import type { Charger, Drive, Gear, Kit, OtherLoad, Pocket, Source } from "./types";

export const WARMTH: Record<Pocket["warmth"], string> = {
  inside: "inside, against the body",
  outer: "outer pocket",
  bag: "bag, as cold as the air",
};

export const SOURCE_KINDS: Record<Source["kind"], string> = {
  bank: "power bank",
  mains: "plug for sockets",
  vehicle: "vehicle socket",
  dynamo: "dynamo",
  panel: "solar panel",
  module: "power module",
};

export const GEAR_KINDS: Record<Gear["kind"], string> = {
  microphone: "microphone",
  recorder: "sound recorder",
  stabiliser: "stabiliser",
  phone: "phone",
  flying_camera: "flying camera",
  other: "something else",
};

/** Watts of each port of a source; a module has one, to its camera. */
export function portWatts(source: Source): readonly number[] {
  return source.kind === "module" ? [source.out_w] : source.ports;
}

/** A key that nothing in the kit has, and a name that nothing in it has. */
function named(kit: Kit, wanted: string): { id: string; name: string } {
  const taken = kitNames(kit);
  const name = taken.includes(wanted) ? copyName(wanted, taken) : wanted;
  return { id: freshKey(name, kitKeys(kit)), name };
}

export function freshPocket(kit: Kit): Pocket {
  return { ...named(kit, "inside pocket"), warmth: "inside" };
}

export function freshCharger(kit: Kit): Charger {
  return {
    ...named(kit, "Charger"),
    families: kit.families.slice(0, 1).map((one) => one.id),
    bays: 2,
    in_w: 10,
    bay_w: null,
    together: true,
    mass_g: 60,
  };
}

export function freshSource(kit: Kit, kind: Source["kind"]): Source {
  const base = named(kit, SOURCE_KINDS[kind]);
  switch (kind) {
    case "bank":
      return {
        ...base,
        kind,
        mah: 10_000,
        health: 1,
        charge: 1,
        ports: [10],
        total_w: null,
        in_w: 10,
        reserve_wh: 0,
        stays_on: false,
        pocket: null,
        mass_g: 200,
      };
    case "mains":
      return { ...base, kind, ports: [10], total_w: null, mass_g: 80 };
    case "vehicle":
      return { ...base, kind, ports: [12], total_w: null, mass_g: 0 };
    case "dynamo":
      return { ...base, kind, rated_w: 3, ports: [5], mass_g: 400 };
    case "panel":
      return {
        ...base,
        kind,
        rated_w: 10,
        ports: [10],
        out_at: "always",
        on_legs: "carried",
        tilt_deg: 0,
        azimuth_deg: 180,
        mass_g: 300,
      };
    case "module":
      return {
        ...base,
        kind,
        fits: kit.cameras[0]?.id ?? "",
        mah: 3000,
        lasts_min: null,
        health: 1,
        charge: 1,
        out_w: 10,
        in_w: 10,
        mass_g: 60,
      };
  }
}

export function freshLoad(kit: Kit): OtherLoad {
  return { ...named(kit, "phone"), wh_per_day: 10, bank: null };
}

export function freshGear(kit: Kit): Gear {
  return {
    ...named(kit, "microphone"),
    kind: "microphone",
    wh: 1.5,
    use_w: 0.3,
    in_w: 2.5,
    charge: 1,
    serves: kit.cameras[0]?.id ?? null,
    pocket: null,
    mass_g: 40,
  };
}

export function freshDrive(kit: Kit): Drive {
  return {
    ...named(kit, "Drive"),
    kind: "drive",
    free_gb: 500,
    write_mb_s: 60,
    link_mb_s: 30,
    mass_g: 50,
  };
}

/** Watts of ports from "18, 10"; null when it is no such list. */
export function portsOf(text: string): number[] | null {
  const ports = text.split(/[,;+]/).map((part) => Number(part.trim().replace(/\s*W$/i, "")));
  const good =
    ports.length > 0 && ports.length <= 8 && ports.every((one) => one > 0 && one <= 2000);
  return good ? ports : null;
}

/** The kit less names of pockets, banks and cameras that it has no more; their modules go. */
export function withoutNames(kit: Kit): Kit {
  const pockets = new Set(kit.pockets.map((one) => one.id));
  const cameras = new Set(kit.cameras.map((one) => one.id));
  const banks = new Set(kit.sources.filter((one) => one.kind === "bank").map((one) => one.id));
  const inKit = (pocket: string | null | undefined) =>
    pocket != null && pockets.has(pocket) ? pocket : null;
  return {
    ...kit,
    batteries: kit.batteries.map((one) => ({ ...one, pocket: inKit(one.pocket) })),
    sources: kit.sources
      .filter((one) => one.kind !== "module" || cameras.has(one.fits))
      .map((one) => (one.kind === "bank" ? { ...one, pocket: inKit(one.pocket) } : one)),
    gear: kit.gear.map((one) => ({
      ...one,
      pocket: inKit(one.pocket),
      serves: one.serves != null && cameras.has(one.serves) ? one.serves : null,
    })),
    loads: kit.loads.map((one) =>
      one.bank != null && !banks.has(one.bank) ? { ...one, bank: null } : one,
    ),
  };
}
