import type { BenchRun } from "../domain/types";

/** A run of the sample's camera that ended hot after 28 minutes in a still room of 21 degrees. */
export const BENCH_RUN: BenchRun = {
  id: "chin-1",
  camera: "chin",
  set_up: "bare",
  mode: "m",
  features: [],
  ambient_c: 21,
  air_mps: 0,
  plugged: false,
  charge_start: 1,
  charge_end: null,
  minutes: 28,
  end: "hot",
  warned_min: null,
  charge_paused_min: 0,
  store_kind: "module",
  store_read: [],
  charging: false,
  charge_read: [],
  mean_w: null,
  metered: "battery",
  bytes: null,
  at: "2026-05-09T14:05:00",
  firmware: "2.4",
  excluded: null,
};
