import { readdirSync, readFileSync } from "node:fs";
import { expect, it } from "vitest";

const CLOCK = "clamp(72px, 12vw, 132px)"; // a running test, read across the room
const SIZES = /^var\(--size-(least|figure|word|text|head|verdict)\)$/;
const texts = (ending: string) =>
  readdirSync("src", { recursive: true, encoding: "utf8" })
    .filter((file) => file.endsWith(ending))
    .map((file) => readFileSync(`src/${file}`, "utf8"));

it("sets type in six sizes, and one clock", () => {
  const found = texts(".css").flatMap((text) =>
    [...text.matchAll(/font-size: ([^;]+);/g)].map((one) => one[1] ?? ""),
  );
  expect(found.length).toBeGreaterThan(60);
  expect(found.filter((size) => !SIZES.test(size) && size !== CLOCK)).toEqual([]);
});

it("draws words in three of them", () => {
  const found = texts(".tsx").flatMap((text) =>
    [...text.matchAll(/fontSize=\{([0-9.]+)\}/g)].map((one) => one[1]),
  );
  expect(new Set(found)).toEqual(new Set(["12", "13", "14"]));
});
