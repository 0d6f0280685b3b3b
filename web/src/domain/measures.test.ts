import { afterEach, describe, expect, it } from "vitest";
import { chooseMeasures, measured, shownIn, shownNumber } from "./measures";
import {
  angleText,
  degreesText,
  doubtText,
  gramsText,
  kilometresText,
  metresText,
  speedText,
  temperatureText,
} from "./units";

afterEach(() => chooseMeasures("metric"));

describe("imperial measures", () => {
  it("are those of the tables: 20 °C is 68 °F, 100 m 328 ft, 10 m/s 22.4 mph, 100 g 3.5 oz", () => {
    chooseMeasures("imperial");
    expect(temperatureText(20)).toBe("68 °F");
    expect(temperatureText(-40)).toBe("\u221240 °F");
    expect(degreesText(0)).toBe("32°");
    expect(doubtText(5)).toBe(" ± 9");
    expect(metresText(100)).toBe("328 ft");
    expect(speedText(10)).toBe("22.4 mph");
    expect(gramsText(100)).toBe("3.5 oz");
    expect(kilometresText(250)).toBe("820 ft");
    expect(kilometresText(42_195)).toBe("26.2 mi");
    expect(angleText(45)).toBe("45°");
    expect(measured(9.5, "K/W")).toBe("17.1 °F/W");
    expect(measured(3, "W")).toBe("3 W");
  });
  it("come back as what was typed", () => {
    chooseMeasures("imperial");
    for (const unit of ["°C", "K", "m/s", "m", "g", "km"])
      for (const typed of [-40, 0, 1, 32.5, 68, 212]) {
        const value = shownIn(unit).back(typed);
        expect(shownIn(unit).of(value)).toBeCloseTo(typed, 1);
      }
    expect(shownIn("°C").back(68)).toBe(20);
  });
  it("leave metric figures exactly as they are", () => {
    for (const value of [0.1, -3.25, 1234.5678]) expect(shownNumber(value, "°C")).toBe(value);
    expect(shownNumber(998.1600000000003, "m")).toBe(998.16); // but for a sum's tail in binary
    expect(temperatureText(-3.4)).toBe("\u22123 °C");
    expect(kilometresText(1500)).toBe("1.5 km");
    expect(gramsText(42.4)).toBe("42 g");
    expect(doubtText(0)).toBe("");
  });
});
