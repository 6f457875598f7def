import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";

import { ask } from "../../api/ask";
import { api } from "../../api/client";
import type { BottleWhole } from "../../api/types";
import { useDocument } from "../../desk/document";

/** A bottle, taught and untaught; the shelf follows, and the scene when asked. */
export function useBottle(kind: "resin" | "colourant", key: string) {
  const { scene, keep } = useDocument();
  const queries = useQueryClient();
  const name = ["bottle", kind, key];
  const bottle = useQuery({
    queryKey: name,
    enabled: key !== "",
    staleTime: 0,
    queryFn: () => ask(api.GET("/api/bottles/{kind}/{key}", { params: { path: { kind, key } } })),
  });
  const heard = async (whole: BottleWhole) => {
    queries.setQueryData(name, whole);
    await queries.invalidateQueries({ queryKey: ["library"] });
    await queries.invalidateQueries({ queryKey: ["tests ahead"] });
  };
  const takeBack = useMutation({
    mutationFn: ({ id, back }: { id: number; back: boolean }) => {
      const params = { path: { log_id: id } };
      return ask(
        back
          ? api.DELETE("/api/bottle-logs/{log_id}", { params })
          : api.POST("/api/bottle-logs/{log_id}/restore", { params }),
      );
    },
    onSuccess: heard,
  });
  const use = useMutation({
    mutationFn: () => ask(api.GET("/api/library")),
    onSuccess: (shelf) => {
      const row = shelf.resins.find((one) => one.id === key);
      if (!row) return;
      keep({ ...scene, resins: scene.resins.map((one) => (one.id === key ? row : one)) }, `${row.name} as learnt`);
    },
  });
  const held = bottle.data
    ? {
        bottle: bottle.data,
        takeBack: (id: number, back: boolean) => {
          takeBack.mutate({ id, back });
        },
        use: () => {
          use.mutate();
        },
      }
    : null;
  const taught = (whole: BottleWhole) => {
    void heard(whole);
  };
  const refused = bottle.error?.message ?? takeBack.error?.message ?? use.error?.message;
  return { held, taught, refused, again: bottle.refetch };
}
