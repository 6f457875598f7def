import { useQuery } from "@tanstack/react-query";

import { api } from "../../api/client";
import { refused } from "../../api/refusal";

/** The generic materials to choose from. */
export function useShelf() {
  return useQuery({
    queryKey: ["library"],
    staleTime: Infinity,
    queryFn: async () => {
      const { data, error, response } = await api.GET("/api/library");
      if (data) return data;
      throw refused(error, response.status);
    },
  }).data;
}

/** Options of a choice, with what the scene holds even if the shelf does not. */
export function optionsOf(shelf: readonly { id: string; name: string }[] | undefined, held: { id: string; name: string }): [string, string][] {
  const all = shelf ?? [];
  const options = all.map((one): [string, string] => [one.id, one.name]);
  return all.some((one) => one.id === held.id) ? options : [[held.id, held.name], ...options];
}
