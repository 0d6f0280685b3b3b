import { freshMode, freshSetUp } from "../domain/kitEdits";
import type {
  CameraResult,
  Course,
  LaidItem,
  Loss,
  PlanDocument,
  Rehearsal,
} from "../domain/types";

/** A course of three rows: full and 20° at 0, half and 60° at 100 s, empty and 70° at 200 s. */
export const COURSE: Course = {
  t_ms: [0, 100_000, 200_000],
  charge: [1, 0.5, 0],
  body_c: [20, 60, 70],
  used_bytes: [0, 1_000_000, 2_000_000],
  state: [0, 3, 3],
};

export function laid(
  id: string,
  kind: LaidItem["kind"],
  startMin: number,
  endMin: number,
): LaidItem {
  return {
    id,
    name: id,
    kind,
    start_ms: startMin * 60_000,
    end_ms: endMin * 60_000,
    hands_free: kind === "stop",
  };
}

export function loss(
  camera: string,
  item: string,
  startMs: number,
  more: Partial<Loss> = {},
): Loss {
  return {
    camera,
    item,
    cause: "empty",
    importance: "must",
    assignment: 0,
    start_ms: startMs,
    end_ms: startMs + 60_000,
    lost_ms: 60_000,
    minutes: 1,
    text: "A1 empty",
    ...more,
  };
}

export function cameraResult(camera: string, more: Partial<CameraResult> = {}): CameraResult {
  return {
    camera,
    asked_ms: 0,
    filmed_ms: 0,
    gap_ms: 0,
    note_ms: 0,
    hottest_c: 70,
    stop_c: 70,
    least_charge: 0,
    least_charge_ms: 0,
    bytes_written: 0,
    files: 1,
    minutes: { asked: 0, filmed: 0, missing: 0, starting: 0 },
    course: COURSE,
    filmed: [],
    gaps: [],
    losses: [],
    ...more,
  };
}

export const DOCUMENT: PlanDocument = {
  tumbrel: 1,
  kit: {
    families: [{ id: "a", name: "A", mah: 1500, nominal_v: 3.8, mass_g: 38 }],
    cameras: [
      {
        id: "chin",
        name: "Chin",
        model: "",
        mass_g: 70,
        battery_family: "a",
        battery_comes_out: true,
        memory: { kind: "slot", largest_gb: 512, slowest_class: null },
        boot_s: null,
        standby_w: null,
        feature_draws: [],
        starts_itself: false,
        continues_after_clip: true,
        chapter_gb: null,
        limits: null,
        start_gesture: "",
        set_ups: [freshSetUp([])],
        modes: [{ ...freshMode([]), id: "m", features: [] }],
      },
    ],
    batteries: [
      { id: "a1", name: "A1", family: "a", health: 1, charge: 1 },
      { id: "a2", name: "A2", family: "a", health: 1, charge: 1 },
    ],
    cards: [{ id: "k1", name: "K1", gb: 64, speed_class: "V30", used_bytes: 0, mass_g: 0.5 }],
  },
  trip: {
    name: "Trial",
    start: "2027-06-12T06:00:00",
    time_zone: "UTC",
    place: null,
    items: [
      {
        kind: "stop",
        id: "camp",
        name: "camp",
        duration_s: 1800,
        not_before: null,
        temp_start_c: 10,
        temp_end_c: 12,
        sun_share: 0,
        gloves: false,
        asleep: null,
        height_m: 900,
      },
      {
        kind: "leg",
        id: "way",
        name: "way",
        duration_s: 3600,
        not_before: null,
        temp_start_c: 12,
        temp_end_c: 20,
        sun_share: 0.5,
        gloves: true,
        activity: "walk",
        hands: "stops",
        air_mps: 1,
        height_start_m: 900,
        height_end_m: 1400,
      },
    ],
  },
  plan: {
    cameras: [],
    assignments: [
      {
        camera: "chin",
        item: "way",
        mode: "m",
        set_up: "bare",
        features: [],
        pattern: { kind: "roll" },
        importance: "must",
        angle: null,
      },
    ],
    swaps: [],
    swap_policy: "early",
  },
};

/** The document rehearsed, by hand: A1 in Chin till 10 min before the end, then empty. */
export const REHEARSAL: Rehearsal = {
  start_utc: "2027-06-12T06:00:00Z",
  duration_ms: 5_400_000,
  items: [laid("camp", "stop", 0, 30), laid("way", "leg", 30, 90)],
  light: [{ start_ms: 0, end_ms: 5_400_000, kind: "day" }],
  cameras: [
    cameraResult("chin", {
      minutes: { asked: 60, filmed: 50, missing: 10, starting: 0 },
      filmed: [
        {
          start_ms: 1_800_000,
          end_ms: 4_800_000,
          assignment: 0,
          item: "way",
          card: "k1",
          battery: "a1",
        },
      ],
      gaps: [
        {
          start_ms: 4_800_000,
          end_ms: 5_400_000,
          cause: "empty",
          assignment: 0,
          item: "way",
          importance: "must",
          note: false,
          text: "A1 empty",
        },
      ],
      losses: [
        loss("chin", "way", 4_800_000, { end_ms: 5_400_000, lost_ms: 600_000, minutes: 10 }),
      ],
      course: {
        t_ms: [0, 1_800_000, 4_800_000, 5_400_000],
        charge: [1, 1, 0, 0],
        body_c: [10, 12, 60, 30],
        used_bytes: [0, 0, 20e9, 20e9],
        state: [0, 0, 3, 0],
      },
    }),
  ],
  batteries: [
    {
      id: "a1",
      name: "A1",
      size: 5.7,
      stays: [{ place: "chin", start_ms: 0, end_ms: 5_400_000, level_start: 1, level_end: 0 }],
    },
    {
      id: "a2",
      name: "A2",
      size: 5.7,
      stays: [{ place: "bag", start_ms: 0, end_ms: 5_400_000, level_start: 1, level_end: 0.9 }],
    },
  ],
  cards: [
    {
      id: "k1",
      name: "K1",
      size: 63e9,
      stays: [{ place: "chin", start_ms: 0, end_ms: 5_400_000, level_start: 0, level_end: 20e9 }],
    },
  ],
  moves: [
    {
      at_ms: 1_800_000,
      end_ms: 1_800_000,
      item: "camp",
      camera: "chin",
      kind: "start",
      text: "roll 4K30",
      takes_out: "",
      puts_in: "",
    },
  ],
  findings: [],
  coverage: [],
  verdict: {
    covered: false,
    asked_ms: 3_600_000,
    filmed_ms: 3_000_000,
    gap_ms: 600_000,
    note_ms: 0,
    minutes: { asked: 60, filmed: 50, missing: 10, starting: 0 },
    broken_musts: 1,
    headline: "One must is broken.",
    detail: "",
    first: null,
    least_left: null,
  },
  largest_loss: null,
  footage_ms: 3_000_000,
  looking_through_ms: 3_750_000,
  files: 1,
  ledgers: {
    energy_start_wh: 11.4,
    energy_end_wh: 5.7,
    energy_used_wh: 5.7,
    energy_lost_wh: 0,
    bytes_start: 0,
    bytes_written: 20e9,
    bytes_end: 20e9,
    asked_ms: 3_600_000,
    filmed_ms: 3_000_000,
    gap_ms: 600_000,
  },
};
