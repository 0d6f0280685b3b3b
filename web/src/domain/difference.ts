import { IMPORTANCES, type Rehearsal } from "./types";
import {
  degreesText,
  gigabytesText,
  gramsText,
  minutesText,
  signedMinutesText,
  signedMomentsText,
  signedWattHoursText,
  temperatureText,
} from "./units";

const MINUTE_MS = 60_000;
const WORTH_BYTES = 5e7;
const WORTH_K = 0.5;

/** What a change gains and costs, as "+36 min must · −4.0 W h · 0 g · +12 GB · chin 67 to 70 °C". */
export function differenceText(
  base: Rehearsal,
  told: Rehearsal,
  nameOf: (camera: string) => string,
  grams = 0,
): string {
  const parts = [
    ...minutesParts(base, told),
    ...momentsParts(base, told),
    signedWattHoursText(told.ledgers.energy_used_wh - base.ledgers.energy_used_wh),
    grams === 0 ? gramsText(0) : `${sign(grams)}${gramsText(Math.abs(grams))}`,
    bytesPart(told.ledgers.bytes_written - base.ledgers.bytes_written),
    heatPart(base, told, nameOf),
    lookingPart(told.looking_through_ms - base.looking_through_ms),
    swapsPart(swapsOf(told) - swapsOf(base)),
  ];
  return parts.filter((part) => part !== "").join(" · ");
}

function sign(value: number): string {
  return value > 0 ? "+" : "\u2212";
}

/** Filmed minutes gained or lost, by importance; the sum is not hidden when they cancel out. */
function minutesParts(base: Rehearsal, told: Rehearsal): string[] {
  const filmed = (one: Rehearsal, key: string) =>
    one.coverage.find((each) => each.by === "importance" && each.key === key)?.filmed_ms ?? 0;
  const parts = IMPORTANCES.flatMap((key) => {
    const minutes = Math.round((filmed(told, key) - filmed(base, key)) / MINUTE_MS);
    return minutes === 0 ? [] : [`${signedMinutesText(minutes)} ${key}`];
  });
  return parts.length > 0 ? parts : [signedMinutesText(0)];
}

/** Moments whole, gained or lost, by importance. */
function momentsParts(base: Rehearsal, told: Rehearsal): string[] {
  const whole = (one: Rehearsal, key: string) =>
    one.verdict.moments.find((each) => each.importance === key)?.whole ?? 0;
  return IMPORTANCES.map((key) => signedMomentsText(whole(told, key) - whole(base, key), key));
}

function bytesPart(bytes: number): string {
  if (Math.abs(bytes) < WORTH_BYTES) return "";
  return `${sign(bytes)}${gigabytesText(Math.abs(bytes))}`;
}

/** The camera whose hottest moment changes most. */
function heatPart(base: Rehearsal, told: Rehearsal, nameOf: (camera: string) => string): string {
  let most: { camera: string; from: number; to: number } | null = null;
  for (const one of told.cameras) {
    const from =
      base.cameras.find((each) => each.camera === one.camera)?.hottest_c ?? one.hottest_c;
    const change = Math.abs(one.hottest_c - from);
    if (change >= WORTH_K && change > Math.abs((most?.to ?? 0) - (most?.from ?? 0)))
      most = { camera: one.camera, from, to: one.hottest_c };
  }
  if (most === null) return "";
  return `${nameOf(most.camera)} ${degreesText(most.from).slice(0, -1)} to ${temperatureText(most.to)}`;
}

function lookingPart(ms: number): string {
  const minutes = Math.round(ms / MINUTE_MS);
  return minutes === 0 ? "" : `${sign(minutes)}${minutesText(Math.abs(minutes))} to look through`;
}

function swapsOf(told: Rehearsal): number {
  return told.moves.filter((one) => ["swap", "card", "module"].includes(one.kind)).length;
}

function swapsPart(more: number): string {
  if (more === 0) return "";
  const count = Math.abs(more);
  return `${String(count)} ${count === 1 ? "swap" : "swaps"} ${more > 0 ? "more" : "less"}`;
}
