import { Box } from "@chakra-ui/react";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";

import { ask } from "../../api/ask";
import { api } from "../../api/client";
import type { EntryState } from "../../api/types";
import { useDocument } from "../../desk/document";
import { usePicture } from "../../desk/use-outcome";
import { Word } from "../../ui/pill";
import { Problem } from "../../ui/problem";
import { Slide } from "../../ui/slide";
import { warpTo } from "./warp";

const WIDE = 216;
const CORNERS = ["upper left", "upper right", "lower right", "lower left"] as const;

/** The planned picture over a photograph, brought to its four corners; a slider goes from one to the other. */
export function Over({ entry }: { entry: EntryState }) {
  const { scene, work } = useDocument();
  const queries = useQueryClient();
  const picture = usePicture(scene, "front");
  const [share, setShare] = useState(50);
  const [pressed, setPressed] = useState<[number, number][] | null>(null);
  const photograph = entry.photograph;
  const keep = useMutation({
    mutationFn: (corners: [number, number][]) =>
      ask(
        api.PATCH("/api/entries/{entry_id}", {
          params: { path: { entry_id: entry.id } },
          body: { corners, text: null, at: null, place: null },
        }),
      ),
    onSuccess: () => queries.invalidateQueries({ queryKey: ["story", work.id] }),
  });
  if (!photograph) return null;
  const high = (WIDE * photograph.height_px) / photograph.width_px;
  const planned = WIDE * (scene.tank.fill_height_mm / scene.tank.inner_width_mm);
  const corners = photograph.corners?.map(([x = 0, y = 0]) => [x * WIDE, y * high] as const);
  const warp = corners ? warpTo(WIDE, planned, corners) : null;
  return (
    <Box>
      <Box
        position="relative"
        width={`${WIDE}px`}
        overflow="hidden"
        style={{ height: high, cursor: pressed ? "crosshair" : undefined }}
        onClick={(event) => {
          if (!pressed) return;
          const box = event.currentTarget.getBoundingClientRect();
          const more: [number, number][] = [
            ...pressed,
            [(event.clientX - box.left) / WIDE, (event.clientY - box.top) / high],
          ];
          setPressed(more.length < 4 ? more : null);
          if (more.length === 4) keep.mutate(more);
        }}
      >
        <img src={`/api/entries/${entry.id}/small`} alt={entry.text || photograph.name} width={WIDE} height={high} />
        {warp && picture && !pressed ? (
          <Box position="absolute" left="0" top="0" style={{ clipPath: `inset(0 ${100 - share}% 0 0)`, height: high }}>
            <img
              src={picture.address}
              alt="as it was planned"
              width={WIDE}
              style={{ height: planned, maxWidth: "none", transformOrigin: "0 0", transform: warp }}
            />
          </Box>
        ) : null}
      </Box>
      {warp && !pressed ? (
        <Slide label="From the photograph to the plan" value={share} take={setShare} width={WIDE} />
      ) : null}
      {pressed ? (
        <Box role="status">press the {CORNERS[pressed.length]} corner of the front</Box>
      ) : (
        <Word
          paddingLeft="0"
          fontSize="14px"
          onClick={() => {
            setPressed([]);
          }}
        >
          {corners ? "set its corners again" : "lay the plan over it"}
        </Word>
      )}
      <Problem>{keep.error?.message}</Problem>
    </Box>
  );
}
