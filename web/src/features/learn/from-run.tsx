import { Box } from "@chakra-ui/react";
import { useMutation } from "@tanstack/react-query";
import { useState } from "react";

import { ask } from "../../api/ask";
import { api } from "../../api/client";
import type { PourLearnt } from "../../api/types";
import { useDocument } from "../../desk/document";
import { useNewestRun } from "../../desk/runs";
import { Pill } from "../../ui/pill";
import { Problem } from "../../ui/problem";
import { Choice } from "../../ui/row";
import { hoursText } from "../../units/display";
import { Curve } from "./curve";

/** What a pour of the newest run tells of its bottle while it sets, and by how much that narrows what comes. */
export function FromRun({ heard }: { heard: () => void }) {
  const { units, scene } = useDocument();
  const [number, setNumber] = useState("1");
  const run = useNewestRun();
  const learn = useMutation({
    mutationFn: ({ id, keep }: { id: string; keep: boolean }) =>
      ask(
        api.POST("/api/runs/{run_id}/learn", {
          params: { path: { run_id: id } },
          body: { pour_number: Number(number), keep, place: "middle" },
        }),
      ),
    onSuccess: (told) => {
      if (told.kept) heard();
    },
  });
  if (!run) return <Box color="soft">No pour has been followed at the bench yet.</Box>;
  return (
    <Box role="group" aria-label="From a pour">
      <Choice
        label="pour"
        value={number}
        options={scene.pours.map((_, at) => [String(at + 1), String(at + 1)] as const)}
        take={setNumber}
      />
      <Pill
        loading={learn.isPending}
        onClick={() => {
          learn.mutate({ id: run.id, keep: false });
        }}
      >
        what does it tell?
      </Pill>
      <Problem>{learn.error?.message}</Problem>
      {learn.data ? (
        <Box role="status">
          <Curve fit={learn.data.fit} units={units} />
          <Box>{learn.data.fit.words.join(" ")}</Box>
          {learn.data.disagrees ? (
            <Box color="caution">This pour disagrees with what was learnt before. Is it the same bottle?</Box>
          ) : null}
          <Narrowed told={learn.data} />
          {learn.data.fit.merges && !learn.data.kept ? (
            <Pill
              tone="depth"
              onClick={() => {
                learn.mutate({ id: run.id, keep: true });
              }}
            >
              teach the bottle
            </Pill>
          ) : null}
        </Box>
      ) : null}
    </Box>
  );
}

/** The window of each pour as it was, pale, and as it is now. */
function Narrowed({ told }: { told: PourLearnt }) {
  return (
    <Box as="table" fontSize="14px" width="100%" aria-label="Tack windows, before and with this pour">
      <tbody>
        {told.after.map((pour, at) => {
          const was = told.now[at];
          return (
            <tr key={pour.pour_number}>
              <td>pour {pour.pour_number} opens</td>
              <td style={{ color: "var(--soft)", textAlign: "right" }}>
                {was ? `${hoursText(was.opens_low_h)} to ${hoursText(was.opens_high_h)}` : ""}
              </td>
              <td style={{ fontWeight: 700, textAlign: "right" }}>
                {hoursText(pour.opens_low_h)} to {hoursText(pour.opens_high_h)}
              </td>
            </tr>
          );
        })}
      </tbody>
    </Box>
  );
}
