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
