import { firstAfter, momentOf } from "./moment";
import type { CameraResult, Kit, Pooled, Rehearsal, SourceTold } from "./types";

export interface Unit {
  id: string;
  name: string;
  /** A camera, a pocket, "bag", or "charger/bay". */
  place: string;
  /** Charge [0..1], or bytes used. */
  level: number;
  size: number;
  /** Of a battery, degrees. */
  cellC: number | null;
}

/** A value of a column at a time, between its rows. */
export function valueAt(times: readonly number[], column: readonly number[], atMs: number): number {
  const after = Math.min(firstAfter(times, atMs), times.length - 1);
  const before = Math.max(0, after - 1);
  const span = (times[after] ?? 0) - (times[before] ?? 0);
  const way = span > 0 ? Math.min(1, Math.max(0, (atMs - (times[before] ?? 0)) / span)) : 1;
  const from = column[before] ?? 0;
  return from + ((column[after] ?? from) - from) * way;
}

/** Where each battery is at a time, and its charge. */
export function unitsAt(
  pool: readonly Pooled[],
  cameras: readonly CameraResult[],
  atMs: number,
): Unit[] {
  return pool.map((one) => {
    const stay = one.stays.findLast((s) => s.start_ms <= atMs) ?? one.stays[0];
    const place = stay?.place ?? "bag";
    const result = cameras.find((camera) => camera.camera === place);
    const moment = result ? momentOf(result.course, atMs) : null;
    const { id, name, size } = one;
    if (moment !== null)
      return { id, name, place, level: moment.charge, size, cellC: moment.cellC };
    if (one.t_ms.length > 0)
      return {
        id,
        name,
        place,
        level: valueAt(one.t_ms, one.charge, atMs),
        size,
        cellC: valueAt(one.t_ms, one.cell_c, atMs),
      };
    return { id, name, place, level: stay?.level_start ?? 0, size, cellC: null };
  });
}

export interface Pile {
  key: string;
  name: string;
  units: Unit[];
}

/** Batteries by where they are: in cameras, pocket by pocket, charger by charger, the bag. */
export function pilesOf(kit: Kit, rehearsal: Rehearsal, units: readonly Unit[]): Pile[] {
  const cameras = new Set(rehearsal.cameras.map((one) => one.camera));
  const named = [
    ...kit.pockets.map((one) => ({ key: one.id, name: one.name })),
    ...kit.chargers.map((one) => ({ key: `${one.id}/`, name: one.name })),
  ];
  const piles = [
    { key: "cameras", name: "in cameras", units: units.filter((one) => cameras.has(one.place)) },
    ...named.map(({ key, name }) => ({
      key,
      name,
      units: units.filter((one) =>
        key.endsWith("/") ? one.place.startsWith(key) : one.place === key,
      ),
    })),
    {
      key: "bag",
      name: "bag",
      units: units.filter(
        (one) =>
          !cameras.has(one.place) &&
          named.every(({ key }) =>
            key.endsWith("/") ? !one.place.startsWith(key) : one.place !== key,
          ),
      ),
    },
  ];
  return piles.filter((pile) => pile.units.length > 0);
}

/** What hangs on each port of a source at a time; null: nothing. */
export function portsAt(source: SourceTold, atMs: number): (string | null)[] {
  return Array.from({ length: source.ports }, (_, port) => {
    const last = source.hung.findLast((one) => one.port === port && one.at_ms <= atMs);
    return last === undefined || last.unit === "" ? null : last.unit;
  });
}

const HOUR_MS = 3_600_000;

/** The place that would take most footage with it at a time, and how much of it [ms]. */
export function worstLoss(rehearsal: Rehearsal, atMs: number): { place: string; ms: number } {
  const hour = Math.floor(atMs / HOUR_MS);
  return rehearsal.at_risk
    .map((one) => ({ place: one.place, ms: one.by_hour_ms[hour] ?? 0 }))
    .reduce((a, b) => (b.ms > a.ms ? b : a), { place: "", ms: 0 });
}
