import { useQuery, useQueryClient } from "@tanstack/react-query";

import type { Chances, Flag } from "../api/types";
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
