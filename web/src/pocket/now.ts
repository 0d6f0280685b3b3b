import type { Schemas } from "../api/client";
import { type Tick, stateOf } from "./ticks";

export type Card = Schemas["TripCard"];
export type CardPlace = Schemas["CardPlace"];
export type CardMove = Schemas["CardMove"];

/** To which camera, where one is in the hands, and what: "Chin: A3 out, A2 in". */
export function moveText({ camera, say }: CardMove): string {
  return camera === "" ? say : `${camera}: ${say}`;
}

/** Milliseconds from the trip's start to a moment. */
export function tripMs(card: Card, now: Date): number {
  return now.getTime() - Date.parse(card.start_utc);
}

/** The place of the trip at a moment: the first before it begins, the last after its end. */
export function placeAt(card: Card, now: Date): number {
  const ms = tripMs(card, now);
  const found = card.places.findIndex((one) => ms < one.end_ms);
  return found === -1 ? card.places.length - 1 : found;
}

/** Whether a moment lies within the trip. */
export function isUnderWay(card: Card, now: Date): boolean {
  const ms = tripMs(card, now);
  return ms >= 0 && ms < card.duration_ms;
}

/** The next stop with work after a place; null after the last. */
export function nextStop(card: Card, from: number): number | null {
  const found = card.places.findIndex((one, place) => place > from && one.hands_free);
  return found === -1 ? null : found;
}

/** The one before; null before the first. */
export function stopBefore(card: Card, from: number): number | null {
  const found = card.places.findLastIndex((one, place) => place < from && one.hands_free);
  return found === -1 ? null : found;
}

export interface Work {
  /** The move to do now; none when all is done. */
  current: CardMove | null;
  /** Moves not done and not left out, the current one among them. */
  open: readonly CardMove[];
  done: number;
  /** Seconds that what is open takes. */
  needs_s: number;
  /** Seconds until hands are no longer free, by the clock; by the plan when it is not that time. */
  has_s: number;
  /** What to leave out first where time does not suffice, until it does. */
  leave: readonly CardMove[];
}

/** What is left to do at a place, and whether there is time. */
export function workAt(card: Card, place: CardPlace, ticks: readonly Tick[], now: Date): Work {
  const states = stateOf(ticks);
  const open = place.moves.filter((one) => !states.has(one.key));
  const needs = open.reduce((sum, one) => sum + one.takes_s, 0);
  const ms = tripMs(card, now);
  const here = ms >= place.start_ms && ms < place.end_ms;
  const planned = place.spare_s + place.moves.reduce((sum, one) => sum + one.takes_s, 0);
  const has = here ? Math.floor((place.end_ms - ms) / 1000) : planned;
  const leave: CardMove[] = [];
  let short = needs - has;
  for (const key of place.leave_out) {
    const move = open.find((one) => one.key === key);
    if (short <= 0) break;
    if (move === undefined) continue;
    leave.push(move);
    short -= move.takes_s;
  }
  return {
    current: open[0] ?? null,
    open,
    done: place.moves.length - open.length,
    needs_s: needs,
    has_s: has,
    leave,
  };
}

/** "40 s", "3 min", "1 h 10". */
export function lengthText(seconds: number): string {
  if (seconds < 120) return `${String(Math.max(0, Math.round(seconds)))} s`;
  const minutes = Math.floor(seconds / 60);
  if (minutes < 60) return `${String(minutes)} min`;
  return `${String(Math.floor(minutes / 60))} h ${String(minutes % 60).padStart(2, "0")}`;
}

/** The local time of day on the trip. */
export function clockText(card: Card, now: Date): string {
  return new Intl.DateTimeFormat("en-GB", {
    timeZone: card.time_zone,
    hour: "2-digit",
    minute: "2-digit",
    hour12: false,
  }).format(now);
}
