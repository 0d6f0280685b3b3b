import * as limits from "./limits";
import { freshKey, kitKeys } from "./edits";
import type {
  Battery,
  BatteryFamily,
  Camera,
  Card,
  Kit,
  Mode,
  Preset,
  Serving,
  SetUp,
} from "./types";

export const RESOLUTIONS: readonly { name: string; width_px: number; height_px: number }[] = [
  { name: "5.3K", width_px: 5312, height_px: 2988 },
  { name: "4K", width_px: 3840, height_px: 2160 },
  { name: "2.7K", width_px: 2704, height_px: 1520 },
  { name: "1440", width_px: 1920, height_px: 1440 },
  { name: "1080", width_px: 1920, height_px: 1080 },
  { name: "720", width_px: 1280, height_px: 720 },
];

export function resolutionName(mode: Mode): string {
  const known = RESOLUTIONS.find(
    (one) => one.width_px === mode.width_px && one.height_px === mode.height_px,
  );
  return known?.name ?? `${String(mode.width_px)} × ${String(mode.height_px)}`;
}

/** What a mode is called until somebody names it. */
export function modeName(mode: Mode): string {
  return `${resolutionName(mode)} ${String(mode.fps)}`;
}

/** A mode with a part changed; its name follows its figures until it is renamed. */
export function withModePart(mode: Mode, part: Partial<Mode>): Mode {
  const next = { ...mode, ...part };
  const unnamed = unspaced(mode.name) === unspaced(modeName(mode));
  return unnamed && part.name === undefined ? { ...next, name: modeName(next) } : next;
}

function unspaced(name: string): string {
  return name.replaceAll(" ", "");
}

export function withUnit<Unit extends { id: string }>(units: readonly Unit[], next: Unit): Unit[] {
  return units.map((one) => (one.id === next.id ? next : one));
}

export function withoutUnit<Unit extends { id: string }>(
  units: readonly Unit[],
  id: string,
): Unit[] {
  return units.filter((one) => one.id !== id);
}

/** "A3" after "A1" and "A2"; the first number that is free. */
export function nextLabel(letter: string, taken: readonly string[]): string {
  let number = 1;
  while (taken.includes(`${letter}${String(number)}`)) number += 1;
  return `${letter}${String(number)}`;
}

export function freshFamily(kit: Kit): BatteryFamily {
  const letters = "ABCDEFGHIJKLMNOPQRSTUVWXYZ";
  const name =
    [...letters].find((letter) => kit.families.every((one) => one.name !== letter)) ?? "new";
  return {
    id: freshKey(name, kitKeys(kit)),
    name,
    mah: 1200,
    nominal_v: 3.8,
    mass_g: 26,
    cold_k: 0,
    available: [],
  };
}

export function freshBattery(kit: Kit, family: BatteryFamily): Battery {
  const name = nextLabel(
    family.name,
    kit.batteries.map((one) => one.name),
  );
  return {
    id: freshKey(name, kitKeys(kit)),
    name,
    family: family.id,
    health: limits.Battery.health.default,
    charge: limits.Battery.charge.default,
  };
}

export function freshCard(kit: Kit): Card {
  const name = nextLabel(
    "K",
    kit.cards.map((one) => one.name),
  );
  return {
    id: freshKey(name, kitKeys(kit)),
    name,
    gb: 128,
    speed_class: "V30",
    used_bytes: 0,
    mass_g: 0.5,
  };
}

export function freshMode(taken: readonly Mode[]): Mode {
  const first = "4K 30";
  const names = taken.map((one) => one.name);
  const name = names.includes(first) ? copyName(first, names) : first;
  return {
    id: freshKey(
      name,
      taken.map((one) => one.id),
    ),
    name,
    width_px: 3840,
    height_px: 2160,
    fps: 30,
    video_mbps: 60,
    peak_mbps: null,
    audio_mbps: limits.Mode.audio_mbps.default,
    draw: { kind: "not_known" },
    rise_k: null,
    clip_limit_s: null,
    features: ["screen", "radio", "positioning", "microphone"],
    box_minutes: null,
    proxy_share: 0,
    loops: true,
    sound: true,
  };
}

export function freshSetUp(taken: readonly SetUp[]): SetUp {
  const name = taken.length === 0 ? "bare" : "cased";
  return {
    id: freshKey(
      name,
      taken.map((one) => one.id),
    ),
    name,
    case_factor: limits.SetUp.case_factor.default,
    case_a: limits.SetUp.case_a.default,
    air_share: limits.SetUp.air_share.default,
    tau_s: null,
    lag_factor: limits.SetUp.lag_factor.default,
    charges_recording: true,
    writes_to: "own",
    swap_s: limits.SetUp.swap_s.default,
    swap_gloved_s: limits.SetUp.swap_gloved_s.default,
    door_blocked_s: 0,
    hot_swap: false,
    power: "battery",
    water: "dry",
  };
}

/** The first slot that no preset keeps. */
export function freeSlot(taken: readonly Preset[]): number {
  let slot = 1;
  while (taken.some((one) => one.slot === slot)) slot += 1;
  return slot;
}

/** A preset in the first free slot, in the camera's first mode, all else left to the camera. */
export function freshPreset(camera: Camera): Preset {
  const slot = freeSlot(camera.presets);
  const name = `Preset ${String(slot)}`;
  return {
    id: freshKey(
      name,
      camera.presets.map((one) => one.id),
    ),
    slot,
    name,
    mode: camera.modes[0]?.id ?? "",
    stabilised: "on",
    shutter_per_s: null,
    shutter_is: "exact",
    field_of_view: "",
    turned: false,
    note: "",
    exposure_ev: 0,
    white_balance_k: null,
    most_gain_iso: null,
    microphone_db: null,
    filter_stops: 0,
    slowing: null,
  };
}

/** The kit with what the person says of an angle or mount somewhere; null: as is usual. */
export function withServing(kit: Kit, next: Serving): Kit {
  const others = kit.serving.filter((one) => one.what !== next.what || one.where !== next.where);
  return { ...kit, serving: [...others, next] };
}

export function withoutServing(kit: Kit, { what, where }: Pick<Serving, "what" | "where">): Kit {
  return {
    ...kit,
    serving: kit.serving.filter((one) => one.what !== what || one.where !== where),
  };
}

/** What is asked of a new camera; everything else is assumed. */
export interface AskedCamera {
  name: string;
  /** A family that is there, or null: a battery of its own. */
  family: string | null;
  mah: number;
  /** Of its card. */
  gb: number;
  /** What the box says: how long it lasts in which mode. */
  resolution: string;
  fps: number;
  /** Null: not known. */
  minutes: number | null;
}

/** The answers that stand there before one types. */
export function firstAsked(kit: Kit): AskedCamera {
  return {
    name: `Camera ${String(kit.cameras.length + 1)}`,
    family: null,
    mah: 1200,
    gb: 128,
    resolution: "4K",
    fps: 30,
    minutes: 80,
  };
}

const FIXED = { kind: "fixed", gb: 64, reserved_gb: 0, speed_mb_s: 90 } as const;
export const SLOT = { kind: "slot", largest_gb: 512, slowest_class: null } as const;

/** What is assumed of a new camera until it is said. */
const UNSAID_OF_A_CAMERA = {
  model: "",
  mass_g: 70,
  battery_comes_out: true,
  memory: SLOT,
  boot_s: null,
  standby_w: null,
  feature_draws: [],
  starts_itself: false,
  continues_after_clip: true,
  chapter_gb: null,
  limits: null,
  resistance_k_per_w: null,
  charge_heat: 1,
  start_gesture: "",
  answers_to: [],
  move_s: limits.Camera.move_s.default,
  move_gloved_s: limits.Camera.move_gloved_s.default,
  mounts: [],
  loops: [],
  steadies: [],
  chapter_min: null,
  clock_set: true,
  clock_drift_s_per_day: 0,
  file_prefix: "",
  f_number: null,
  base_iso: null,
  most_iso: null,
  presets: [],
} satisfies Partial<Camera>;

/** A kit with a camera as it was asked about, and with a battery and a card for it: it runs at once. */
export function withNewCamera(kit: Kit, asked = firstAsked(kit)): { kit: Kit; camera: string } {
  const known = kit.families.find((one) => one.id === asked.family);
  const family = known ?? { ...freshFamily(kit), mah: asked.mah };
  const size = RESOLUTIONS.find((one) => one.name === asked.resolution);
  const { fps, minutes } = asked;
  const mode = withModePart(freshMode([]), {
    ...(size && { width_px: size.width_px, height_px: size.height_px }),
    fps,
    draw: minutes === null ? { kind: "not_known" } : { kind: "lasts", minutes },
    box_minutes: minutes,
  });
  const camera: Camera = {
    ...UNSAID_OF_A_CAMERA,
    id: freshKey(asked.name, kitKeys(kit)),
    name: asked.name,
    battery_family: family.id,
    set_ups: [freshSetUp([])],
    modes: [mode],
  };
  const families = known ? kit.families : [...kit.families, family];
  const larger = { ...kit, families, cameras: [...kit.cameras, camera] };
  const powered = { ...larger, batteries: [...larger.batteries, freshBattery(larger, family)] };
  const card = { ...freshCard(powered), gb: asked.gb };
  return { kit: { ...powered, cards: [...powered.cards, card] }, camera: camera.id };
}

/** The camera with a slot beside its memory, or without one; then none of it writes to a card. */
export function withSlot(camera: Camera, on: boolean): Camera {
  if (on) return { ...camera, slot: SLOT };
  const set_ups = camera.set_ups.map((one) => ({ ...one, writes_to: "own" as const }));
  return { ...camera, slot: null, set_ups };
}

/**
 * The kit with a camera whose memory is a slot, or fixed. Where each slot has one card, the
 * camera's card goes into its memory with its size, and comes out again with it.
 */
export function withMemory(kit: Kit, id: string, kind: Camera["memory"]["kind"]): Kit {
  const slots = kit.cameras.filter((one) => one.memory.kind === "slot");
  const place = slots.findIndex((one) => one.id === id);
  const camera = kit.cameras.find((one) => one.id === id);
  if (camera === undefined || camera.memory.kind === kind) return kit;
  const bare = withSlot(camera, false);
  if (kind === "slot") {
    const { memory } = camera;
    const gb = memory.kind === "fixed" ? memory.gb : FIXED.gb;
    const cameras = withUnit(kit.cameras, {
      ...bare,
      memory: { ...SLOT, largest_gb: Math.max(SLOT.largest_gb, gb) },
    });
    const lacks = kit.cards.length <= slots.length;
    return {
      ...kit,
      cameras,
      cards: lacks ? [...kit.cards, { ...freshCard(kit), gb }] : kit.cards,
    };
  }
  const card = kit.cards[place] ?? kit.cards.at(-1);
  const memory = { ...FIXED, gb: card?.gb ?? FIXED.gb };
  const cameras = withUnit(kit.cameras, { ...bare, memory });
  const isOnes = card !== undefined && kit.cards.length === slots.length;
  return { ...kit, cameras, cards: isOnes ? withoutUnit(kit.cards, card.id) : kit.cards };
}

/** What of a kit cannot be meant: batteries without a camera, cameras without a battery. */
export function kitFaults(kit: Kit): string[] {
  const taken = new Set(kit.cameras.map((one) => one.battery_family));
  const held = new Set(kit.batteries.map((one) => one.family));
  const nameOf = (id: string) => kit.families.find((one) => one.id === id)?.name ?? id;
  const idle = [...held]
    .filter((id) => !taken.has(id))
    .map((id) => {
      const mine = kit.batteries.filter((one) => one.family === id).map((one) => one.name);
      return `No camera takes ${mine.join(", ")}: give a camera the family ${nameOf(id)}, or leave them at home.`;
    });
  const empty = kit.cameras
    .filter((one) => one.battery_comes_out && !held.has(one.battery_family))
    .map(
      (one) =>
        `${one.name} has no battery: none of family ${nameOf(one.battery_family)} is carried. Add one, or choose another family.`,
    );
  return [...empty, ...idle];
}

/** One more battery in the same state, under the next free label of its family. */
export function withCopiedBattery(kit: Kit, battery: Battery): Kit {
  const family = kit.families.find((one) => one.id === battery.family);
  if (family === undefined) return kit;
  const { id, name } = freshBattery(kit, family);
  return { ...kit, batteries: [...kit.batteries, { ...battery, id, name }] };
}

/** One more card in the same state, under the next free label. */
export function withCopiedCard(kit: Kit, card: Card): Kit {
  const { id, name } = freshCard(kit);
  return { ...kit, cards: [...kit.cards, { ...card, id, name }] };
}

export function withCopiedCamera(kit: Kit, id: string): { kit: Kit; camera: string } {
  const camera = kit.cameras.find((one) => one.id === id);
  if (camera === undefined) return { kit, camera: id };
  const name = copyName(
    camera.name,
    kit.cameras.map((one) => one.name),
  );
  const key = freshKey(name, kitKeys(kit));
  return { kit: { ...kit, cameras: [...kit.cameras, { ...camera, id: key, name }] }, camera: key };
}

export function copyName(name: string, taken: readonly string[]): string {
  let number = 2;
  while (taken.includes(`${name} ${String(number)}`)) number += 1;
  return `${name} ${String(number)}`.slice(0, 60);
}

/** The first family's units go with it only when no camera takes it; else the family must stay. */
export function familyIsFree(kit: Kit, id: string): boolean {
  return (
    kit.cameras.every((one) => one.battery_family !== id) &&
    kit.batteries.every((one) => one.family !== id) &&
    kit.chargers.every((one) => !one.families.includes(id))
  );
}
