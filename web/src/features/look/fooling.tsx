import { Box } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";

import { ask } from "../../api/ask";
import { api } from "../../api/client";
import type { Stand } from "../../api/types";
import { useChoice } from "../../desk/choice";
import { useDocument } from "../../desk/document";
import { Word } from "../../ui/pill";
import { Problem } from "../../ui/problem";
import { Title } from "../../ui/row";
import { lengthText } from "../../units/display";

/** What an eye there would miss or be fooled by, in words and numbers. */
export function Fooling({ stand }: { stand: Stand }) {
  const { outcome, outcomeOf, units } = useDocument();
  const { figureId } = useChoice();
  const [all, setAll] = useState(false);
  const told = useQuery({
    queryKey: ["look-fooled", outcome.scene_digest, stand.azimuth_deg, stand.eye_height_mm, stand.distance_mm, units],
    staleTime: Infinity,
    placeholderData: (old) => old,
    queryFn: () => ask(api.POST("/api/look/fooled", { body: { scene: outcomeOf, stand } })),
  });
  if (!told.data) return <Problem>{told.error?.message}</Problem>;
  const { figures, faces, lines, top, limits } = told.data;
  const chosen = figures.find((one) => one.figure_id === figureId) ?? figures[0];
  const names = new Map((outcomeOf.figures ?? []).map((one) => [one.id, one.name]));
  return (
    <Box role="group" aria-label="What fools the eye" fontSize="15px" maxWidth="62ch">
      <Title>What fools the eye</Title>
      {chosen?.words.map((sentence, at) => (
        <Box key={sentence} fontWeight={at === 0 ? 700 : 400}>
          {sentence}
        </Box>
      ))}
      {[...faces, ...top, ...limits].map((sentence) => (
        <Box key={sentence}>{sentence}</Box>
      ))}
      {lines
        .filter((line) => all || line.shows)
        .map((line) => (
          <Box key={line.pour_number}>{line.words}</Box>
        ))}
      {all ? (
        <Box as="table" width="100%" marginTop="2" aria-label="Where figures seem to be">
          <thead>
            <tr style={{ color: "var(--soft)", textAlign: "left" }}>
              <th>figure</th>
              <th>behind the glass</th>
              <th>seems at</th>
              <th>seen again in</th>
            </tr>
          </thead>
          <tbody>
            {figures.map((one) => (
              <tr key={one.figure_id}>
                <td>{names.get(one.figure_id)}</td>
                <td>
                  {lengthText(one.behind_mm, units)} ({one.face})
                </td>
                <td>{lengthText(one.seems_mm, units)}</td>
                <td>{one.mirrored_in.join(", ") || "nothing"}</td>
              </tr>
            ))}
          </tbody>
        </Box>
      ) : null}
      <Word
        paddingLeft="0"
        aria-expanded={all}
        onClick={() => {
          setAll(!all);
        }}
      >
        {all ? "less of it" : "all figures and lines"}
      </Word>
    </Box>
  );
}
