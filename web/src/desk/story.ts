import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useSearchParams } from "react-router";

import { ask } from "../api/ask";
import { api } from "../api/client";
import type { EntryState, FaultKind } from "../api/types";
import { useDocument } from "./document";

/** What is wrong in a piece, in the words of who looks at it. */
export const FAULTS: readonly (readonly [FaultKind, string])[] = [
  ["bubbles", "bubbles"],
  ["void", "void"],
  ["leak", "leak"],
  ["line", "line between layers"],
  ["crack", "crack"],
  ["yellow", "yellow"],
  ["soft", "soft"],
  ["sunk_figure", "sunk figure"],
  ["moved_figure", "moved figure"],
  ["too_dark", "too dark"],
  ["milky", "milky"],
  ["flecks", "flecks"],
  ["dust", "dust"],
  ["wall_print", "print of the wall"],
  ["floated_bed", "floated bed"],
];
export const faultWord = (kind: FaultKind) => FAULTS.find(([id]) => id === kind)?.[1] ?? kind;

/** The story of the scene on the desk, and the ways to add to it and to take from it. */
export function useStory() {
  const { work } = useDocument();
  const queries = useQueryClient();
  const scene = { path: { scene_id: work.id } };
  const entries = useQuery({
    queryKey: ["story", work.id],
    staleTime: 10_000,
    queryFn: () => ask(api.GET("/api/scenes/{scene_id}/entries", { params: scene })),
  });
  const again = async () => {
    await queries.invalidateQueries({ queryKey: ["story", work.id] });
    await queries.invalidateQueries({ queryKey: ["explain", work.id] });
  };
  const enter = useMutation({
    mutationFn: (body: Parameters<typeof entryOf>[0]) =>
      ask(api.POST("/api/scenes/{scene_id}/entries", { params: scene, body: entryOf(body) })),
    onSuccess: again,
  });
  const takeBack = useMutation({
    mutationFn: ({ id, back }: { id: number; back: boolean }) => {
      const params = { path: { entry_id: id } };
      return ask(
        back
          ? api.DELETE("/api/entries/{entry_id}", { params })
          : api.POST("/api/entries/{entry_id}/restore", { params }),
      );
    },
    onSuccess: again,
  });
  const bring = useMutation({
    mutationFn: ({ file, place }: { file: File; place?: { x_mm: number; depth_mm: number } }) =>
      ask(
        api.POST("/api/scenes/{scene_id}/photographs", {
          params: { ...scene, query: { name: file.name, ...place } },
          body: file as unknown as string,
          bodySerializer: (body: unknown) => body as File,
          headers: { "Content-Type": "application/octet-stream" },
        }),
      ),
    onSuccess: again,
  });
  return { entries, enter, takeBack, bring };
}

export interface Entered {
  kind: "note" | "fault" | "lesson";
  text?: string;
  place?: EntryState["place"];
  fault?: EntryState["fault"];
  pins?: EntryState["pins"];
}

const entryOf = ({ kind, text = "", place = null, fault = null, pins = [] }: Entered) => ({
  kind,
  text,
  place,
  fault,
  pins,
  at: null,
});

/** The spot that was pressed on the section, kept in the page's address. */
export function useSpot() {
  const [params, setParams] = useSearchParams();
  const number = (name: string) => {
    const text = params.get(name);
    const value = text === null ? NaN : Number(text);
    return Number.isFinite(value) ? value : null;
  };
  const x_mm = number("x");
  const depth_mm = number("d");
  return {
    spot: x_mm === null || depth_mm === null ? null : { x_mm, depth_mm },
    press: (spot: { x_mm: number; depth_mm: number } | null) => {
      setParams(
        (now) => {
          now.delete("x");
          now.delete("d");
          if (spot) {
            now.set("x", spot.x_mm.toFixed(0));
            now.set("d", spot.depth_mm.toFixed(0));
          }
          return now;
        },
        { replace: true },
      );
    },
  };
}

/** Lessons of other pieces that are pinned to what this plan uses. */
export function useLessonsMet() {
  const { work, scene } = useDocument();
  return useQuery({
    queryKey: ["lessons met", work.id, scene.pours.map((pour) => pour.resin_id), scene.tank.wall.material.id],
    staleTime: 10_000,
    retry: false,
    queryFn: () => ask(api.GET("/api/scenes/{scene_id}/lessons", { params: { path: { scene_id: work.id } } })),
  }).data;
}
