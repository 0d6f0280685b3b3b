import type { ItemTold, Leg, RouteTold, Stop, Trip, Way } from "../domain/types";
import { freshItem } from "../domain/routeEdits";
import { DOCUMENT } from "./samples";

/** 4 km up at 10 %, eastward for the first half and north for the second; without times. */
export const WAY: Way = {
  id: "pass",
  name: "Over the pass",
  going: "foot",
  factor: 1,
  clock: "pace",
  length_m: 4000,
  ascent_m: 400,
  descent_m: 0,
  latitude: [46, 46, 46, 46.009, 46.018],
  longitude: [8, 8.013, 8.026, 8.026, 8.026],
  height_m: [1000, 1100, 1200, 1300, 1400],
  moved_s: [0, 900, 1800, 2700, 3600],
};

const fresh = freshItem(DOCUMENT.trip, "leg", undefined) as Leg;
const on = (from_m: number, to_m: number) => ({ on_way: { way: "pass", from_m, to_m } });
export const LOW_LEG: Leg = { ...fresh, id: "low", name: "low", duration_s: 1800, ...on(0, 2000) };
export const HIGH_LEG: Leg = {
  ...fresh,
  id: "high",
  name: "high",
  duration_s: 1800,
  ...on(2000, 4000),
};
export const TARN: Stop = {
  ...(freshItem(DOCUMENT.trip, "stop", undefined) as Stop),
  id: "tarn",
  name: "Tarn",
  duration_s: 600,
  ...on(2000, 2000),
};

export const ON_WAY: Trip = { ...DOCUMENT.trip, ways: [WAY], items: [LOW_LEG, TARN, HIGH_LEG] };

function told(item: string, from: number, to: number, part: Partial<ItemTold>): ItemTold {
  return {
    item,
    start_ms: from * 60_000,
    end_ms: to * 60_000,
    at_ms: [from * 60_000, to * 60_000],
    along_m: [],
    height_m: [],
    sun_deg: [10, 20],
    level_w_m2: [100, 200],
    kit_w_m2: [50, 100],
    sun_from_deg: [],
    ...part,
  };
}

export const TOLD: RouteTold = {
  start_utc: "2027-06-12T06:00:00Z",
  plans: [{ way: "pass", x_m: [0, 1000, 2000, 2000, 2000], y_m: [0, 0, 0, 1000, 2000] }],
  items: [
    told("low", 0, 30, { along_m: [0, 2000], height_m: [1000, 1200], sun_from_deg: [-90, -90] }),
    told("tarn", 30, 40, { along_m: [2000, 2000], height_m: [1200, 1200] }),
    told("high", 40, 70, { along_m: [2000, 4000], height_m: [1200, 1400], sun_from_deg: [5, 5] }),
  ],
};
