import { describe, expect, it } from "vitest";

import type { BenchStep, RunNow, Units } from "../../api/types";
import type { RunEvent } from "../../jobs/outbox";
import { needsStart, undoing } from "./entered";
import { clockFigure } from "./parts";
import { inQuiet, localHour } from "./quiet";
import { readEntry } from "./read";
import { standing } from "./standing";
import { deviceName, ended, type Entry, inOrder, type Teller } from "./telling";

const METRIC: Units = { length: "mm", temperature: "c", volume: "ml", mass: "g" };
const TELLER: Teller = { now: () => Date.parse("2027-03-05T09:00:00Z"), seen: 4 };

function step(id: string, kind: BenchStep["kind"], more: Partial<BenchStep> = {}): BenchStep {
  return {
    id,
    kind,
    chain: "pour-1",
    title: id,
    under: null,
    caution: null,
    pour_id: "pour-1",
    below_id: "",
    pour_number: 1,
    cup: 1,
    cups_count: 1,
    piece: 0,
    target_g: null,
    target_ml: null,
    colourant_id: "",
    figure_id: "",
    drops: null,
    neat_drops: null,
    stock_a_g: 0,
    clock_min: null,
    after: "",
    asks: "",
    line_depth_mm: null,
    surface_cm2: 0,
    ...more,
  };
}

function now(events: RunEvent[], done: string[], current: string): RunNow {
  const state = {
    current,
    waits_until: null,
    done,
    clocks: [],
    cups: [],
    conflicts: [],
    poured: [],
    rim: null,
    dark: [],
    top_up: null,
  };
  return { events, state, number: events.length } as unknown as RunNow;
}

function told(kind: string, step_id: string, more: Partial<RunEvent> = {}): RunEvent {
  return { id: `${kind}-${step_id}`, at: "2027-03-05T08:00:00Z", kind, step_id, ...more };
}

const STEPS = [step("a", "weigh_a"), step("b", "weigh_b"), step("s", "stir", { clock_min: 4, after: "before" })];

describe("what a step records", () => {
  const rows: [BenchStep["kind"], Partial<BenchStep>, Entry, Record<string, unknown>[]][] = [
    ["weigh_a", {}, { mass_g: 82.2 }, [{ kind: "weighed", part: "a", mass_g: 82.2 }]],
    [
      "weigh_b",
      {},
      { mass_g: 35 },
      [
        { kind: "weighed", part: "b", mass_g: 35 },
        { kind: "met", cup: 1 },
      ],
    ],
    ["weigh_b", {}, { mass_g: null }, [{ kind: "met" }]],
    ["room", {}, { measured_c: 21 }, [{ kind: "measured", what: "room", measured_c: 21 }]],
    ["room", {}, { measured_c: null }, []],
    ["temper", {}, { measured_c: 24 }, [{ kind: "measured", what: "mix", pour_id: "pour-1" }]],
    ["level", {}, { right_lower_mm: 2, front_lower_mm: 0 }, [{ kind: "levelled", right_lower_mm: 2 }]],
    ["feel", { below_id: "pour-0" }, { feels: "prints" }, [{ kind: "felt", pour_id: "pour-0", feels: "prints" }]],
    ["figure", { figure_id: "pike" }, {}, [{ kind: "placed", figure_id: "pike" }]],
    ["flame", {}, {}, [{ kind: "flamed", pour_id: "pour-1" }]],
    ["pour", { line_depth_mm: 40 }, { line_depth_mm: 42 }, [{ kind: "poured", line_depth_mm: 42, piece: 1 }]],
    ["pour", { line_depth_mm: null }, {}, []],
    [
      "colour",
      { colourant_id: "red", drops: 6, neat_drops: 0.12, stock_a_g: 0.2 },
      { drops: 3 },
      [{ kind: "dropped", colourant_id: "red", neat_drops: 0.06, part_a_g: 0.1 }],
    ],
    ["stir", {}, {}, []],
  ];
  it.each(rows)("%s %o", (kind, more, entry, events) => {
    const made = ended(TELLER, step("x", kind, more), entry);
    expect(made).toHaveLength(events.length + 1);
    for (const [at, fields] of events.entries()) expect(made[at]).toMatchObject({ ...fields, step_id: "x", seen: 4 });
    expect(made.at(-1)).toMatchObject({ kind: "done", step_id: "x" });
    expect(new Set(made.map((one) => one.id)).size).toBe(made.length);
    const moments = made.map((one) => Date.parse(one.at));
    expect([...moments].sort((a, b) => a - b)).toEqual(moments);
  });
});

describe("where a run stands", () => {
  it("is as the server says while nothing waits", () => {
    expect(standing(STEPS, now([], ["a"], "b"), [])).toEqual({ done: ["a"], current: "b", until_ms: null });
  });
  it("goes on with what was entered here, and its clock runs from there", () => {
    const waiting = [told("done", "b", { at: "2027-03-05T08:30:00Z" })];
    const found = standing(STEPS, now([], ["a"], "b"), waiting);
    expect(found.done).toEqual(["a", "b"]);
    expect(found.current).toBe("s");
    expect(found.until_ms).toBe(Date.parse("2027-03-05T08:34:00Z"));
  });
  it("takes back what is undone here", () => {
    const heard = now([told("done", "a")], ["a"], "b");
    expect(standing(STEPS, heard, [told("undone", "", { event_id: "done-a" })]).current).toBe("a");
  });
  it("is over when every step is", () => {
    expect(standing(STEPS, now([], ["a", "b"], "s"), [told("done", "s")]).current).toBe("");
  });
});

describe("taking back", () => {
  const run = (events: RunEvent[], waiting: RunEvent[] = []) => ({ now: now(events, [], ""), waiting, teller: TELLER });
  it("takes all of the step that came last", () => {
    const events = [
      told("done", "a"),
      told("weighed", "b", { at: "2027-03-05T08:10:00Z" }),
      told("done", "b", { at: "2027-03-05T08:10:01Z" }),
    ];
    expect(undoing(run(events), STEPS).map((one) => one.event_id)).toEqual(["weighed-b", "done-b"]);
  });
  it("takes once what the server has and what still waits here", () => {
    const done = told("done", "b");
    expect(undoing(run([done], [done]), STEPS).map((one) => one.event_id)).toEqual(["done-b"]);
  });
  it("takes what put a cup right by itself", () => {
    const events = [told("done", "b"), told("weighed", "b:more", { at: "2027-03-05T08:20:00Z" })];
    expect(undoing(run(events), STEPS).map((one) => one.event_id)).toEqual(["weighed-b:more"]);
  });
  it("leaves notes and mishaps, and finds nothing in an empty run", () => {
    expect(undoing(run([told("noted", "a"), told("struck", "")]), STEPS)).toEqual([]);
  });
  it("asks for the begin of a pour once, and again when that was taken back", () => {
    const pour = step("p", "pour", { line_depth_mm: 0 });
    const begun = told("pouring", "p", { pour_id: "pour-1" });
    expect(needsStart(pour, run([]))).toBe(true);
    expect(needsStart(pour, run([begun]))).toBe(false);
    expect(needsStart(pour, run([begun], [told("undone", "", { event_id: begun.id })]))).toBe(true);
    expect(needsStart(step("s", "stir"), run([]))).toBe(false);
  });
});

describe("what was typed", () => {
  const scale = {
    kind: "scale",
    port: 1,
    simulated: false,
    plugged: true,
    mass_g: 81.9,
    steady: true,
    overloaded: false,
  } as const;
  it("follows the scale where it reads, else what was typed, else the mark", () => {
    const weigh = step("a", "weigh_a", { asks: "mass" });
    expect(readEntry(weigh, { mass: "80" }, scale, null, 82.2, METRIC).entry.mass_g).toBe(81.9);
    expect(readEntry(weigh, { mass: "80,5" }, null, null, 82.2, METRIC).entry.mass_g).toBe(80.5);
    expect(readEntry(weigh, {}, null, null, 82.2, METRIC).entry.mass_g).toBe(82.2);
    expect(readEntry(weigh, { mass: "2" }, null, null, 82.2, { ...METRIC, mass: "oz" }).entry.mass_g).toBeCloseTo(
      56.7,
      1,
    );
  });
  it("reads temperatures and lengths in the reader's units", () => {
    const room = step("r", "room", { asks: "room" });
    expect(
      readEntry(room, { warm: "75" }, null, null, 0, { ...METRIC, temperature: "f" }).entry.measured_c,
    ).toBeCloseTo(23.9, 1);
    expect(readEntry(room, {}, null, null, 0, METRIC).entry.measured_c).toBeNull();
    const line = step("p", "pour", { asks: "line", line_depth_mm: 40 });
    expect(readEntry(line, { line: "2" }, null, null, 0, METRIC).entry.line_depth_mm).toBe(42);
    expect(readEntry(line, {}, null, null, 0, METRIC).entry.line_depth_mm).toBeNull();
  });
  it("turns millilitres into grams where parts are measured in marked cups", () => {
    const marked = step("a", "weigh_a", { asks: "mass", target_g: 110, target_ml: 100 });
    expect(readEntry(marked, { mass: "50" }, null, null, 110, METRIC, true).entry.mass_g).toBeCloseTo(55);
    expect(readEntry(marked, { mass: "50" }, null, null, 110, METRIC).entry.mass_g).toBe(50);
  });
  it("takes the bed as it was found", () => {
    const tight = step("t", "tight", { asks: "sealed" });
    for (const [text, sealed] of [
      ["1", true],
      ["0", false],
    ] as const) {
      const { entry } = readEntry(tight, { sealed: text }, null, null, 0, METRIC);
      expect(ended(TELLER, tight, entry)[0]).toMatchObject({ kind: "sealed", sealed });
    }
    expect(ended(TELLER, tight, readEntry(tight, {}, null, null, 0, METRIC).entry)).toHaveLength(1);
  });
  it("says what is no number", () => {
    expect(readEntry(step("a", "weigh_a", { asks: "mass" }), { mass: "much" }, null, null, 1, METRIC).flaw).toContain(
      "much",
    );
  });
});

describe("a clock", () => {
  it.each([
    [0, "0:00"],
    [-5000, "0:00"],
    [59_600, "1:00"],
    [84_000, "1:24"],
    [3_600_000, "1 h 00"],
    [13_260_000, "3 h 41"],
  ])("%d ms is %s", (ms, text) => {
    expect(clockFigure(ms)).toBe(text);
  });
});

describe("quiet hours", () => {
  it.each([
    [null, 3, false],
    [[22, 7], 23, true],
    [[22, 7], 6.9, true],
    [[22, 7], 7, false],
    [[13, 15], 14, true],
  ] as const)("%o at %d is %s", (quiet, hour, said) => {
    expect(inQuiet(quiet, hour)).toBe(said);
  });
  it("goes by the person's own clock", () => {
    const heard = { now: "2027-03-05T09:00:00Z", local_now: "2027-03-05T10:00:00" } as RunNow;
    expect(localHour(heard, Date.parse("2027-03-05T21:30:00Z"))).toBeCloseTo(22.5);
  });
});

describe("the order of what a device enters", () => {
  const at = (second: number, device = deviceName()) =>
    told("done", `s${second}`, {
      at: new Date(Date.parse("2027-03-05T09:00:00Z") + 1000 * second).toISOString(),
      device,
    });
  it("is kept where its clock has stepped back, and leaves what others entered alone", () => {
    const stepped = inOrder([at(5), at(6)], [at(3), at(8), at(60, "another")]);
    expect(stepped.map((one) => one.at)).toEqual(["2027-03-05T09:00:08.001Z", "2027-03-05T09:00:09.001Z"]);
    expect(stepped.map((one) => one.step_id)).toEqual(["s5", "s6"]);
  });
  it("changes nothing where it has not", () => {
    expect(inOrder([at(9)], [at(3), at(8), at(60, "another")])).toEqual([at(9)]);
    expect(inOrder([at(9)], [])).toEqual([at(9)]);
  });
});
