// @vitest-environment jsdom
import { render, screen } from "@testing-library/react";
import { expect, it } from "vitest";
import { clockOf } from "../../domain/clock";
import { DOCUMENT, REHEARSAL } from "../../testing/samples";
import { Lost } from "./Lost";

const clock = clockOf("UTC", "2027-06-12T06:00:00Z");

it("footage that is all kept is what the verdict calls filmed, to the minute", () => {
  const { verdict } = REHEARSAL;
  const filmed = { ...verdict, filmed_ms: 2_998_000, minutes: { ...verdict.minutes, filmed: 49 } };
  const told = (footage_ms: number) => ({ ...REHEARSAL, verdict: filmed, footage_ms });
  const { rerender } = render(
    <Lost document={DOCUMENT} rehearsal={told(2_998_000)} clock={clock} handMs={0} />,
  );
  expect(screen.getByText(/^The whole trip: 49 min of footage/)).toBeTruthy();
  rerender(<Lost document={DOCUMENT} rehearsal={told(600_000)} clock={clock} handMs={0} />);
  expect(screen.getByText(/^The whole trip: 10 min of footage/)).toBeTruthy();
});
