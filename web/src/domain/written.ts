import type { Unit } from "./carried";
import { momentOf } from "./moment";
import type { Assignment, Camera, LaidItem, PlanDocument, Pooled, Rehearsal } from "./types";

interface Span {
  fromMs: number;
  toMs: number;
}

const ALWAYS: readonly Span[] = [{ fromMs: -Infinity, toMs: Infinity }];

/**
 * When what a camera writes goes to a store in it: its set-up's word, from the start of a leg that
 * is asked of it to that of the next; the first one's before. A camera of one store writes there.
 */
function writtenSpans(
  camera: Camera,
  assignments: readonly Assignment[],
  laid: readonly LaidItem[],
  store: string,
): readonly Span[] {
  if (camera.slot == null) return ALWAYS;
  const starts = new Map(laid.map((one) => [one.id, one.start_ms]));
  const toCard = new Set(
    camera.set_ups.filter((one) => one.writes_to === "card").map((one) => one.id),
  );
  const legs = assignments
    .filter((one) => one.camera === camera.id)
    .map((one) => ({ atMs: starts.get(one.item) ?? 0, card: toCard.has(one.set_up) }))
    .sort((a, b) => a.atMs - b.atMs);
  const card = store !== ownMemory(camera);
  return legs.flatMap((leg, place) => {
    const fromMs = place === 0 ? -Infinity : leg.atMs;
    return leg.card === card ? [{ fromMs, toMs: legs[place + 1]?.atMs ?? Infinity }] : [];
  });
}

/** The key of a camera's own memory among the rehearsal's cards. */
function ownMemory(camera: Camera): string {
  return `${camera.id}:memory`;
}

type Played = Pick<Rehearsal, "cards" | "cameras" | "items">;
type Planned = Pick<PlanDocument, "kit" | "plan">;

function stayAt(store: Pooled, atMs: number) {
  return store.stays.findLast((one) => one.start_ms <= atMs) ?? store.stays[0];
}

/** Bytes on a store at a time, while its camera may write to another one. */
function usedAt({ kit }: Planned, played: Played, store: Pooled, atMs: number): number {
  const stay = stayAt(store, atMs);
  const camera = kit.cameras.find((one) => one.id === stay?.place);
  const result = played.cameras.find((one) => one.camera === stay?.place);
  const left = stay?.level_start ?? 0;
  if (stay === undefined || camera === undefined || result === undefined) return left;
  const wroteTo = (ms: number) => momentOf(result.course, ms)?.usedBytes ?? left;
  if (camera.slot == null) return wroteTo(atMs);
  // the course tells of the store that is written to: this one's ends with its last clip
  const last = result.filmed.findLast((one) => one.card === store.id && one.start_ms <= atMs);
  return last === undefined || last.start_ms < stay.start_ms
    ? left
    : wroteTo(Math.min(atMs, last.end_ms - 1));
}

/** Where each card and memory is at a time, and the bytes on it. */
export function cardsAt(planned: Planned, played: Played, atMs: number): Unit[] {
  return played.cards.map((store) => ({
    id: store.id,
    name: store.name,
    place: stayAt(store, atMs)?.place ?? "bag",
    level: usedAt(planned, played, store, atMs),
    size: store.size,
    cellC: null,
  }));
}

/** The card or memory that a camera writes to at a time; undefined where it has none. */
export function writtenAt(
  planned: Planned,
  played: Played,
  camera: Camera,
  atMs: number,
): Unit | undefined {
  const isNow = (span: Span) => span.fromMs <= atMs && atMs < span.toMs;
  return cardsAt(planned, played, atMs).find(
    ({ id, place }) =>
      place === camera.id &&
      writtenSpans(camera, planned.plan.assignments, played.items, id).some(isNow),
  );
}

/** When a store is in a camera and written to. */
export function writtenStays(
  store: Pooled,
  camera: Camera,
  assignments: readonly Assignment[],
  laid: readonly LaidItem[],
): { startMs: number; endMs: number }[] {
  const spans = writtenSpans(camera, assignments, laid, store.id);
  return store.stays
    .filter((stay) => stay.place === camera.id)
    .flatMap((stay) =>
      spans.map((span) => ({
        startMs: Math.max(stay.start_ms, span.fromMs),
        endMs: Math.min(stay.end_ms, span.toMs),
      })),
    )
    .filter((one) => one.endMs > one.startMs);
}
