import type { Shelf, SolidMaterial } from "../api/types";
import { ask } from "../api/ask";
import { useQuery } from "@tanstack/react-query";

import { api } from "../api/client";

/** The generic materials to choose from. */
export function useShelf() {
  return useQuery({
    queryKey: ["library"],
    staleTime: Infinity,
    queryFn: () => ask(api.GET("/api/library")),
  }).data;
}

/** Options of a choice, with what the scene holds even if the shelf does not. */
export function optionsOf(
  shelf: readonly { id: string; name: string }[] | undefined,
  held: { id: string; name: string },
): [string, string][] {
  const all = shelf ?? [];
  const options = all.map((one): [string, string] => [one.id, one.name]);
  return all.some((one) => one.id === held.id) ? options : [[held.id, held.name], ...options];
}

/** Solids that may be used as something: a wall, a seal, a base, a bed, a figure. */
export function solidsFor(shelf: Shelf | undefined, use: string): SolidMaterial[] {
  const ids = shelf?.uses[use] ?? [];
  return (shelf?.solids ?? []).filter((one) => ids.includes(one.id));
}
