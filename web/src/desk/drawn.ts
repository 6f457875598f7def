import { useQuery, useQueryClient } from "@tanstack/react-query";

import type { Chances, Flag, Outcome, PourOutcome } from "../api/types";
import { useDocument } from "./document";

const keyOf = (digest: string) => ["chances", digest];

/** The chances that were drawn of the very document that is shown; null until they are. */
export function useDrawn(): Chances | null {
  const { outcome } = useDocument();
  const { data } = useQuery<Chances | null>({
    queryKey: keyOf(outcome.scene_digest),
    queryFn: () => null,
    enabled: false,
    staleTime: Infinity,
  });
  return data ?? null;
}

/** Tells all that read them what was drawn of a document. */
export function useTellDrawn() {
  const client = useQueryClient();
  return (digest: string, told: Chances) => {
    client.setQueryData(keyOf(digest), told);
  };
}

/** In what share of the draws a flag came; null where it was not drawn. */
export function chanceOf(flag: Flag, drawn: Chances | null): number | null {
  const found = drawn?.troubles.find((one) => one.code === flag.code && one.pour_number === flag.pour_number);
  return found ? found.chance_fraction : null;
}

/** A share of the draws as people say it. */
export function inHundred(share: number): string {
  const times = Math.round(share * 100);
  return times === 0 ? "in under 1 of 100" : `in ${times} of 100`;
}

/** A pour with the windows that were drawn in place of the quick ones. */
export function withDrawnWindows(pour: PourOutcome, drawn: Chances | null): PourOutcome {
  const told = drawn?.pours.find((one) => one.pour_number === pour.number);
  const { spans } = pour.heat;
  if (!told || !spans || told.opens_low_h === null || told.closes_low_h === null) return pour;
  return {
    ...pour,
    heat: {
      ...pour.heat,
      spans: {
        ...spans,
        tack_opens: { early_h: told.opens_low_h, late_h: told.opens_high_h },
        tack_closes: { early_h: told.closes_low_h, late_h: told.closes_high_h },
      },
    },
  };
}

/** The band of the peak by level: the quick one, or drawn in to what the draws of its pour left of it. */
export function peakBand(outcome: Outcome, drawn: Chances | null): { low_c: number[]; high_c: number[] } {
  const { depth_mm, peak_c, low_c, high_c } = outcome.heat;
  if (!drawn) return { low_c, high_c };
  const shares = depth_mm.map((depth) => {
    const pour = outcome.pours.find((one) => one.top_depth_mm <= depth && depth <= one.bottom_depth_mm);
    const told = drawn.pours.find((one) => one.pour_number === pour?.number);
    const { cure, peak_band: quick } = pour?.heat ?? {};
    if (!cure || !quick || !told || told.peak_low_c === null || told.peak_high_c === null) return { low: 1, high: 1 };
    const share = (drawnIn: number, whole: number) => (whole > 0.1 ? Math.min(1, Math.max(0, drawnIn / whole)) : 1);
    return {
      low: share(cure.peak_c - told.peak_low_c, cure.peak_c - quick.low_c),
      high: share(told.peak_high_c - cure.peak_c, quick.high_c - cure.peak_c),
    };
  });
  return {
    low_c: low_c.map((low, at) => (peak_c[at] ?? low) - ((peak_c[at] ?? low) - low) * (shares[at]?.low ?? 1)),
    high_c: high_c.map((high, at) => (peak_c[at] ?? high) + (high - (peak_c[at] ?? high)) * (shares[at]?.high ?? 1)),
  };
}
