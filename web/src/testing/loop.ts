import type { BottleWhole, EntryState, Explanation, Finishing, LogFit } from "../api/types";

/** What the server says of finish, log and bottles, for tests. */
export const FINISH: Finishing = {
  demould_at: "2027-03-10T23:49",
  demould_h: 134.8,
  full_cure_d: 11,
  lip_mm: 2.2,
  lip_mm_long: 580,
  releases: [],
  faces: {
    area_cm2: 696,
    from_grit: 800,
    rungs: [{ grit: 800, minutes: 41.8, sheets: 1.7 }],
    sanding_min: 209,
    coat_ml: 34.8,
    coat_min: 77,
    coat_waits_h: 48,
  },
  top: {
    area_cm2: 190,
    ripple_ml: 22.8,
    open_min: 5.2,
    patch_cm2: 62,
    patches_count: 4,
    clear_h: 30,
    white_ml: 3.8,
    white_clear_h: 84,
  },
  fits: [{ figure_id: "boat", gap_mm: 0.02, fits: false, words: "Boat will stick." }],
  steps: [
    {
      id: "joint_alcohol",
      title: "Open the joints",
      under: "Run alcohol along the hot glue.",
      caution: "No flame.",
      at_h: 134.8,
      minutes: 12,
    },
  ],
};

const told = (middle: number) => ({ middle, low: middle - 0.05, high: middle + 0.05 });

export const FIT: LogFit = {
  state: "told",
  rate: told(1.1),
  heat: told(0.98),
  early: told(1.08),
  mean: [0.1, -0.02],
  covariance: [
    [0.001, 0],
    [0, 0.001],
  ],
  misfit: 0.6,
  distance: 1.1,
  peak_c: 41,
  peak_at_h: 6.2,
  merges: true,
  words: ["Pace: quicker than its row by 10 % (5 to 15).", "The next mix can differ."],
  curve: { at_h: [0, 6, 12], measured_c: [23, 41, 30], fitted_c: [23, 40, 30], row_c: [23, 38, 31] },
};

export const BOTTLE: BottleWhole = {
  kind: "resin",
  key: "deep",
  name: "deep-pour resin",
  rate: [1.08, 1.02, 1.15],
  heat: [1, 0.95, 1.05],
  derived: "learnt at the bench",
  numbers: { k1_per_s: [1e-5, 1.08e-5] },
  logs: [
    {
      id: 4,
      kind: "cup",
      title: "cup of 60 g",
      place: "",
      made_at: "2027-03-01T10:00:00Z",
      withdrawn: false,
      log: FIT,
      swatch: null,
      drops: null,
    },
  ],
};

export const ENTRY: EntryState = {
  id: 9,
  kind: "fault",
  at: "2027-03-12T10:00:00Z",
  text: "cloud of them",
  place: { x_mm: 60, depth_mm: 50, behind_mm: null },
  fault: { kind: "bubbles", size_mm: 2, figure_id: null },
  pins: [],
  photograph: null,
};

const CAUSE = {
  struck: false,
  with_it: 15.8,
  without_it: 0.8,
  quantity: "volume",
  against: [],
  open: ["The room was not read."],
  next_time: "Seal it.",
};

export const WHY: Explanation = {
  words: "Most likely it was a bed that was not sealed: 93 in 100.",
  told: true,
  candidates: [
    { ...CAUSE, id: "unsealed_bed", name: "a bed that was not sealed", probability: 0.93, speaks: ["It gave 16 ml."] },
    { ...CAUSE, id: "other", name: "something else", probability: 0.05, speaks: [], with_it: null, without_it: null },
  ],
  set_90: ["unsealed_bed"],
  decides: ["The room was not read."],
  repairs: [
    { fault: "bubbles", words: "Drill to it.", volume_ml: 0.1, mass_g: 0.1, peak_c: 55, minutes: 20 },
    { fault: "bubbles", words: "Hide it.", volume_ml: null, mass_g: null, peak_c: null, minutes: null },
  ],
};
