import { describe, expect, it } from "vitest";
import { blanksOf, questionOf, SUMS, sumOf, wantedOf, wrongIn } from "./sums";

const query = (text: string) => sumOf(new URLSearchParams(text));

describe("a quick sum in an address", () => {
  it("is the first one where none is named, with its first values", () => {
    const { sum, typed } = query("");
    expect(sum.kind).toBe("lasts");
    expect(questionOf(sum, typed)).toEqual({
      kind: "lasts",
      mah: 1500,
      volts: 3.8,
      watts: 4,
      temp_c: 20,
      air_mps: 0,
      mass_g: 70,
    });
  });
  it("holds what is typed, with decimal comma and minus as people write them", () => {
    const { sum, typed } = query("sum=lasts&watts=2,5&temp_c=\u221220");
    expect(questionOf(sum, typed)).toMatchObject({ watts: 2.5, temp_c: -20 });
  });
  it("asks for what is wanted of several", () => {
    const { sum, typed } = query("sum=timelapse&wanted=interval");
    expect(wantedOf(sum, typed)).toBe("interval");
    expect(questionOf(sum, typed)).toEqual({
      kind: "timelapse",
      wanted: "interval",
      event_min: 120,
      playback_s: 20,
      fps: 25,
    });
    expect(wantedOf(sum, { wanted: "nonsense" })).toBe("playback");
  });
  it.each([
    ["sum=lasts&watts=0", "watts", "From 0.01 to 60."],
    ["sum=lasts&watts=", "watts", "Give W."],
    ["sum=lasts&watts=four", "watts", "That is no number."],
    ["sum=lasts&temp_c=-80", "temp_c", "From \u221260 to 70."],
    ["sum=loop&segments=2.5", "segments", "Give a whole number."],
    ["sum=charge&from_pct=80&to_pct=60", "to_pct", "More than it has already."],
    ["sum=panel&day=21.6.", "day", "Like 2027-06-21."],
  ])("%s says what is wrong with %s and asks nothing", (address, name, why) => {
    const { sum, typed } = query(address);
    const blank = blanksOf(sum, typed).find((one) => one.name === name);
    expect(blank && wrongIn(blank, typed)).toBe(why);
    expect(questionOf(sum, typed)).toBeNull();
  });
  it("every sum of every kind can be asked as it stands", () => {
    for (const sum of SUMS)
      for (const wanted of sum.wanted?.choices.map((one) => one.value) ?? [""]) {
        const names = blanksOf(sum, { wanted }).map((one) => one.name);
        expect(new Set(names).size).toBe(names.length);
        expect(questionOf(sum, { wanted })?.kind).toBe(sum.kind);
      }
  });
});
