import { describe, expect, it } from "vitest";
import { REHEARSAL } from "../testing/samples";
import type { Course } from "../domain/types";
import { firstApart } from "./rope";

const COURSE = REHEARSAL.cameras[0]?.course as Course;

describe("where a change begins to tell", () => {
  it("is the row before the first that differs", () => {
    const charge = [...COURSE.charge];
    charge[2] = 0.123;
    expect(firstApart(COURSE, { ...COURSE, charge })).toBe(COURSE.t_ms[1]);
  });
  it("a course that ends earlier differs there", () => {
    const t_ms = COURSE.t_ms.slice(0, 2);
    expect(firstApart(COURSE, { ...COURSE, t_ms })).toBe(COURSE.t_ms[1]);
  });
  it("is nowhere in the same course", () => {
    expect(firstApart(COURSE, { ...COURSE })).toBeNull();
  });
});
