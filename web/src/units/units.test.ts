import { describe, expect, it } from "vitest";

import { dayText, hoursBand, hoursText, lengthText, massText, temperatureText, volumeText, weighedText, whenText } from "./display";
import { parse, parseHours, parseLength, parseTemperature } from "./entry";

const metric = { length: "mm", temperature: "c", volume: "ml", mass: "g" } as const;
const us = { length: "in", temperature: "f", volume: "floz", mass: "oz" } as const;

describe("typed lengths", () => {
  it.each([
    ["65", 65], ["65 mm", 65], ["6,5 cm", 65], ["2 1/2 in", 63.5], ['2"', 50.8], ["1/4 in", 6.35],
    ["-3", -3], ["0.5m", 500], ["", undefined], ["deep", undefined], ["3 1/0 in", undefined], ["3 x", undefined],
  ])("%s", (text, mm) => {
    const found = parseLength(text);
    if (mm === undefined) expect(found).toBeUndefined();
    else expect(found).toBeCloseTo(mm, 9);
  });
  it("takes a bare number in the person's own unit", () => {
    expect(parse("2", "length", us)).toBeCloseTo(50.8);
    expect(parse("75", "temperature", us)).toBeCloseTo(23.889, 3);
    expect(parse("12", "plain", us)).toBe(12);
  });
});

describe("typed temperatures and times", () => {
  it.each([["23", 23], ["75F", 23.889], ["75 °F", 23.889], ["23 °C", 23], ["hot", undefined]])("%s", (text, c) => {
    const found = parseTemperature(text);
    if (c === undefined) expect(found).toBeUndefined();
    else expect(found).toBeCloseTo(c, 2);
  });
  it.each([["30", 30], ["30 h", 30], ["1 d 6 h", 30], ["90 min", 1.5], ["1 day", undefined], ["later", undefined]])("%s", (text, h) => {
    expect(parseHours(text)).toBe(h);
  });
});

describe("shown numbers", () => {
  it.each([
    [lengthText(34.04, metric), "34 mm"], [lengthText(63.5, us), "2.5 in"], [lengthText(1.25, metric, 1), "1.3 mm"],
    [temperatureText(66.2, metric), "66 °C"], [temperatureText(66.2, us), "151 °F"],
    [volumeText(788.4, metric), "788 ml"], [volumeText(12345, metric), "12.35 l"], [volumeText(12.34, metric), "12.3 ml"],
    [volumeText(100, us), "3.4 fl oz"], [massText(35.62, metric), "35.6 g"], [massText(607.8, metric), "608 g"], [massText(0.0312, metric), "31 mg"],
    [weighedText(608, metric), "608.0 g"], [weighedText(100, us), "3.53 oz"],
    [hoursText(0.5), "30 min"], [hoursText(6.14), "6.1 h"], [hoursText(33.1), "33 h"], [hoursText(96), "4 d"],
    [hoursText(null), "not reached"],
    [hoursBand({ early_h: 9.5, late_h: 27 }), "9.5 to 27 h"], [hoursBand({ early_h: 35, late_h: 79 }), "35 h to 3.3 d"],
    [hoursBand({ early_h: 0.4, late_h: 0.75 }), "24 to 45 min"], [hoursBand({ early_h: 20, late_h: null }), "20 h or later"],
    [hoursBand({ early_h: 4, late_h: 4.02 }), "4 h"],
    [dayText("2027-03-05T09:00:00"), "Fri 5 Mar"], [whenText("2027-03-11T11:22"), "Thu 11 Mar, 11:22"],
    [whenText(null), "not in this room"],
  ])("%s", (shown, wanted) => {
    expect(shown).toBe(wanted);
  });
});
