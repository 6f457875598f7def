import { describe, expect, it } from "vitest";

import {
  areaText,
  dayText,
  differenceText,
  forceText,
  heavyText,
  hoursBand,
  hoursText,
  lengthFigure,
  lengthText,
  massText,
  temperatureText,
  volumeText,
  weighedText,
  whenText,
} from "./display";
import { bareNumber, readQuantity } from "./entry";
import { UNITS } from "./table";

const metric = { length: "mm", temperature: "c", volume: "ml", mass: "g" } as const;
const us = { length: "in", temperature: "f", volume: "floz", mass: "oz" } as const;

describe("typed numbers", () => {
  it.each([
    ["65", 65],
    ["6,5", 6.5],
    ["-3", -3],
    [".5", 0.5],
    ["−2.5", -2.5],
    ["1,250", undefined],
    ["", undefined],
    ["deep", undefined],
    ["2 1/2", undefined],
  ])("%s", (text, value) => {
    expect(bareNumber(text)).toBe(value);
  });
  it("are in the person's own unit, with or without its word", async () => {
    await expect(readQuantity("2", "length", us)).resolves.toBeCloseTo(50.8);
    await expect(readQuantity("2 in", "length", us)).resolves.toBeCloseTo(50.8);
    await expect(readQuantity("75", "temperature", us)).resolves.toBeCloseTo(23.889, 3);
    await expect(readQuantity("44 mm", "length", metric)).resolves.toBe(44);
    await expect(readQuantity("12", "plain", us)).resolves.toBe(12);
    await expect(readQuantity("deep", "plain", us)).rejects.toThrow("write it like 12.5");
  });
});

describe("the table of units", () => {
  it.each(
    Object.entries(UNITS).flatMap(([quantity, units]) =>
      Object.entries(units).map(([code, unit]) => [quantity, code, unit] as const),
    ),
  )("%s in %s goes there and back", (_quantity, _code, unit) => {
    expect(unit.fromDocument(unit.toDocument(12.5))).toBeCloseTo(12.5, 9);
  });
});

describe("shown numbers", () => {
  it.each([
    [lengthText(34.04, metric), "34 mm"],
    [lengthText(63.5, us), "2 1/2 in"],
    [lengthText(39.7, us), "1 9/16 in"],
    [lengthText(300, us), "11 13/16 in"],
    [lengthText(0.5, us, 1), "0.02 in"],
    [lengthText(25.4, us), "1 in"],
    [lengthFigure(-12.7, us), "-1/2"],
    [lengthText(1.25, metric, 1), "1.3 mm"],
    [temperatureText(66.2, metric), "66 °C"],
    [temperatureText(66.2, us), "151 °F"],
    [volumeText(788.4, metric), "788 ml"],
    [volumeText(12345, metric), "12.35 l"],
    [volumeText(12.34, metric), "12.3 ml"],
    [volumeText(100, us), "3.4 fl oz"],
    [massText(35.62, metric), "35.6 g"],
    [massText(607.8, metric), "608 g"],
    [massText(0.0312, metric), "31 mg"],
    [weighedText(608, metric), "608.0 g"],
    [weighedText(100, us), "3.53 oz"],
    [differenceText(5, us), "9 °F"],
    [differenceText(0.35, metric, 1), "0.3 K"],
    [forceText(12.3, metric), "12.30 gf"],
    [forceText(28.35, us), "1 ozf"],
    [areaText(10, metric), "10 cm²"],
    [areaText(10, us), "1.6 in²"],
    [heavyText(2, metric), "2 kg"],
    [heavyText(2, us), "4.4 lb"],
    [hoursText(0.5), "30 min"],
    [hoursText(6.14), "6.1 h"],
    [hoursText(33.1), "33 h"],
    [hoursText(96), "4 d"],
    [hoursText(null), "not reached"],
    [hoursBand({ early_h: 9.5, late_h: 27 }), "9.5 to 27 h"],
    [hoursBand({ early_h: 35, late_h: 79 }), "35 h to 3.3 d"],
    [hoursBand({ early_h: 0.4, late_h: 0.75 }), "24 to 45 min"],
    [hoursBand({ early_h: 20, late_h: null }), "20 h or later"],
    [hoursBand({ early_h: 4, late_h: 4.02 }), "4 h"],
    [dayText("2027-03-05T09:00:00"), "Fri 5 Mar"],
    [whenText("2027-03-11T11:22"), "Thu 11 Mar, 11:22"],
    [whenText(null), "not in this room"],
  ])("%s", (shown, wanted) => {
    expect(shown).toBe(wanted);
  });
});
