/** One formatter per unit: labels, ticks and sentences come from here. */

import { measured, measures, shownIn } from "./measures";

export function minutesText(minutes: number): string {
  const whole = Math.round(minutes);
  if (whole < 60) return `${String(whole)} min`;
  return `${String(Math.floor(whole / 60))} h ${String(whole % 60).padStart(2, "0")}`;
}

/** "13 to 17 min", "58 min to 1 h 04". */
export function minuteRangeText(low: number, high: number): string {
  const from = minutesText(low).replace(Math.round(high) < 60 ? " min" : "", "");
  return Math.round(low) === Math.round(high)
    ? minutesText(low)
    : `${from} to ${minutesText(high)}`;
}

const FEET_TO_READ_M = 300; // shorter ways are told in feet, where miles are

export function kilometresText(metres: number): string {
  const short = measures() === "imperial" ? metres < FEET_TO_READ_M : metres < 1000;
  if (short) return metresText(metres);
  const { of, unit } = shownIn("km");
  const long = of(metres / 1000);
  const plain = long >= 100 || Number.isInteger(long);
  return `${plain ? String(Math.round(long)) : long.toFixed(1)} ${unit}`;
}

/** A height or a short way: "1840 m", "6037 ft". */
export function metresText(metres: number): string {
  return measured(metres, "m", 0);
}

/** An airflow: "3.5 m/s", "7.8 mph". */
export function speedText(mps: number): string {
  return measured(mps, "m/s");
}

/** A mass: "120 g", "4.2 oz". */
export function gramsText(grams: number): string {
  return measured(measures() === "metric" ? Math.round(grams) : grams, "g");
}

/** A clip's length: seconds while it is shorter than two minutes. */
export function clipText(minutes: number): string {
  return minutes < 2 ? `${String(Math.round(minutes * 60))} s` : minutesText(minutes);
}

/** A clip's size: megabytes while it is small. */
export function clipSizeText(bytes: number): string {
  return bytes < 1e8 ? `${(bytes / 1e6).toFixed(1)} MB` : gigabytesText(bytes);
}

/** "1 file", "3 files". */
export function countText(count: number, one: string, many = `${one}s`): string {
  return `${String(count)} ${count === 1 ? one : many}`;
}

/** A number of things of which some are only expected: "3", "1.4". */
export function expectedText(count: number): string {
  return String(Math.round(count * 10) / 10);
}

/** "+1.4 must moments": moments more or fewer that are whole, or expected to be; else nothing. */
export function signedMomentsText(count: number, importance: string): string {
  const text = expectedText(Math.abs(count));
  if (text === "0") return "";
  return `${count > 0 ? "+" : "\u2212"}${text} ${importance} ${text === "1" ? "moment" : "moments"}`;
}

export function percentText(share: number): string {
  return `${String(Math.round(share * 100))} %`;
}

/** Watts with as many digits as they deserve: "3.8 W", "12 W". */
export function wattsText(watts: number): string {
  return `${watts < 9.95 ? watts.toFixed(1) : String(Math.round(watts))} W`;
}

export function gigabytesText(bytes: number): string {
  const gb = bytes / 1e9;
  if (gb >= 1000) return `${(gb / 1000).toFixed(1)} TB`;
  return gb < 10 ? `${gb.toFixed(1)} GB` : `${String(Math.round(gb))} GB`;
}

/** A temperature without its unit's letter. */
export function degreesText(celsius: number): string {
  return `${String(Math.round(shownIn("°C").of(celsius))).replace("-", "\u2212")}°`;
}

/** A temperature: "20 °C", "68 °F". */
export function temperatureText(celsius: number): string {
  return degreesText(celsius).replace("°", ` ${shownIn("°C").unit}`);
}

/** A doubt of so many kelvins, behind a temperature: " ± 3"; nothing where there is none. */
export function doubtText(kelvins: number): string {
  return kelvins > 0 ? ` ± ${String(Math.round(shownIn("K").of(kelvins)))}` : "";
}

/** An angle: "34°". */
export function angleText(degrees: number): string {
  return `${String(Math.round(degrees)).replace("-", "\u2212")}°`;
}

export function wattHoursText(wh: number): string {
  return `${wh < 10 ? wh.toFixed(1) : String(Math.round(wh))} W h`;
}

export function signedMinutesText(minutes: number): string {
  if (minutes === 0) return "±0 min";
  return `${minutes > 0 ? "+" : "\u2212"}${minutesText(Math.abs(minutes))}`;
}

/** "1:35", "95", "1 h 35", "95 min" in seconds; null when it is no length of time. */
export function parseDuration(text: string): number | null {
  const found = /^(?:(\d+)\s*(?:h|:)\s*)?(\d+)?\s*(?:min|m)?$/.exec(text.trim().toLowerCase());
  if (found === null || (found[1] === undefined && found[2] === undefined)) return null;
  return Number(found[1] ?? 0) * 3600 + Number(found[2] ?? 0) * 60;
}

/** A number typed by a person: decimal comma and true minus are fine; null when it is none. */
export function parseNumber(text: string): number | null {
  const plain = text.trim().replace(",", ".").replace("\u2212", "-");
  if (!/^[+-]?(\d+\.?\d*|\.\d+)$/.test(plain)) return null;
  return Number(plain);
}

/** "1:35" from seconds, for typing back. */
export function durationText(seconds: number): string {
  const minutes = Math.round(seconds / 60);
  return `${String(Math.floor(minutes / 60))}:${String(minutes % 60).padStart(2, "0")}`;
}

export function signedWattHoursText(wh: number): string {
  const text = wattHoursText(Math.abs(wh));
  return Math.abs(wh) < 0.05 ? "±0 W h" : `${wh > 0 ? "+" : "\u2212"}${text}`;
}

/** How long something lasts, with no more digits than that deserves: "43 min", "2 h 10", "43 h", "over 99 h". */
export function lastsText(minutes: number): string {
  if (minutes >= 6000) return "over 99 h";
  return minutes < 600 ? minutesText(minutes) : `${String(Math.round(minutes / 60))} h`;
}

/** A figure with a digit behind the point below ten, else whole: "4.2", "17". */
export function tidyText(value: number): string {
  const digits = Math.abs(value) < 10 ? 10 : 1;
  return String(Math.round(value * digits) / digits).replace("-", "\u2212");
}
