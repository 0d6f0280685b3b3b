/** Metric or imperial, as the person chose. All that is kept, sent and reckoned with is SI. */

export type Measures = "metric" | "imperial";

export interface Shown {
  unit: string;
  /** A value in SI as it is shown. */
  of: (value: number) => number;
  /** What is typed as SI. */
  back: (shown: number) => number;
  /** Digits behind the point that the shown value deserves; none: as many as it has. */
  digits: number | null;
}

const COOKIE = "tumbrel_measures";
const A_YEAR_S = 31_536_000;
const METRES_A_FOOT = 0.3048;
export const METRES_A_MILE = 1609.344;
const MPS_A_MPH = METRES_A_MILE / 3600;
const GRAMS_AN_OUNCE = 28.349523125;
const KELVINS_A_DEGREE = 5 / 9;
const KEPT_DIGITS = 3;
const SAID_DIGITS = 9;

const linear = (unit: string, each: number, digits: number, zero = 0): Shown => ({
  unit,
  digits,
  of: (value) => value / each + zero,
  back: (shown) => rounded((shown - zero) * each, KEPT_DIGITS),
});

const IMPERIAL: ReadonlyMap<string, Shown> = new Map([
  ["°C", linear("°F", KELVINS_A_DEGREE, 0, 32)],
  ["K", linear("°F", KELVINS_A_DEGREE, 1)],
  ["K/W", linear("°F/W", KELVINS_A_DEGREE, 1)],
  ["m/s", linear("mph", MPS_A_MPH, 1)],
  ["m", linear("ft", METRES_A_FOOT, 0)],
  ["km", linear("mi", METRES_A_MILE / 1000, 1)],
  ["g", linear("oz", GRAMS_AN_OUNCE, 1)],
]);

const kept = "document" in globalThis ? document.cookie : "";
let chosen: Measures = new RegExp(`(^|; )${COOKIE}=imperial`).test(kept) ? "imperial" : "metric";

export function measures(): Measures {
  return chosen;
}

/** Keeps the choice, also for what the server tells in sentences. */
export function chooseMeasures(next: Measures): void {
  chosen = next;
  if ("document" in globalThis)
    document.cookie = `${COOKIE}=${next}; path=/; max-age=${String(A_YEAR_S)}; samesite=strict`;
}

/** How values of an SI unit are shown. */
export function shownIn(unit: string): Shown {
  const own = { unit, of: (value: number) => value, back: (shown: number) => shown, digits: null };
  return chosen === "imperial" ? (IMPERIAL.get(unit) ?? own) : own;
}

export function rounded(value: number, digits: number): number {
  const tenths = 10 ** digits;
  return Math.round(value * tenths) / tenths;
}

/** A value of an SI unit as a number to be shown, with no more digits than it deserves. */
export function shownNumber(value: number, unit: string): number {
  const shown = shownIn(unit);
  if (shown.digits !== null) return rounded(shown.of(value), shown.digits);
  return Number(shown.of(value).toPrecision(SAID_DIGITS)); // no tail of a sum in binary
}

/** A value with its unit: "12 m", "39 ft". */
export function measured(value: number, unit: string, digits: number | null = null): string {
  const number =
    digits === null ? shownNumber(value, unit) : rounded(shownIn(unit).of(value), digits);
  return `${String(number).replace("-", "\u2212")} ${shownIn(unit).unit}`;
}
