import { kink } from "./assumed";

const MINUTES = 60;

/** The rate [1/h] of a cell that goes from empty to a share [0..0.99] in so many minutes. */
export function rateOf(share: number, minutes: number): number {
  const taper = 1 - kink;
  const whole =
    share <= kink ? share : kink + taper * Math.log(taper / (1 - Math.min(0.99, share)));
  return (whole * MINUTES) / minutes;
}

/** Minutes from empty to where the taper begins, at a rate [1/h]. */
export function minutesToTaper(rate: number): number {
  return (kink * MINUTES) / rate;
}
