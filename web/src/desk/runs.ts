import { useQuery } from "@tanstack/react-query";

import { ask } from "../api/ask";
import { api } from "../api/client";
import { useDocument } from "./document";

/** The newest real run of the scene on the desk in which something happened; undefined while it is not known. */
export function useNewestRun(enabled = true) {
  const { work } = useDocument();
  const runs = useQuery({
    queryKey: ["runs", work.id],
    enabled,
    staleTime: 0,
    retry: false,
    queryFn: () => ask(api.GET("/api/scenes/{scene_id}/runs", { params: { path: { scene_id: work.id } } })),
  });
  return runs.data?.find((one) => !one.rehearsal && one.events_count > 0) ?? (runs.data ? null : undefined);
}
