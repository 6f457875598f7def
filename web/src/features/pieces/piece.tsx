import { Box, Flex } from "@chakra-ui/react";
import { type ReactNode, useState } from "react";
import { Link } from "react-router";

import type { Glance, SceneRow } from "../../api/types";
import { Mark, TONES } from "../../ui/mark";
import { dayText, lengthText, massText, whenText } from "../../units/display";

const GRADES = ["stop", "watch", "note"] as const;

interface Shown {
  scene: SceneRow;
  glance: Glance | undefined;
  problem: string | undefined;
  large: boolean;
  deeds?: ReactNode;
}

/** A scene as it looks, with what decides about it; the whole of it leads there. */
export function Piece({ scene, glance, problem, large, deeds }: Shown) {
  const [unseen, hide] = useState<number | null>(null);
  return (
    <Box as="article" aria-label={scene.name} minWidth="0">
      <Link to={`/scenes/${scene.id}/pours`} aria-label={`Open ${scene.name}`}>
        <Box
          asChild
          display="block"
          width="100%"
          aspectRatio={3 / 2}
          objectFit="cover"
          bg="wash"
          fontSize="14px"
          color="soft"
        >
          {unseen === scene.revision ? (
            <div />
          ) : (
            <img
              src={`/api/scenes/${scene.id}/picture?width=${large ? 720 : 480}&revision=${scene.revision}`}
              alt={`${scene.name}, as it will look`}
              onError={() => {
                hide(scene.revision);
              }}
            />
          )}
        </Box>
        <Box fontSize={large ? "26px" : "21px"} fontWeight={800} lineHeight="1.15" marginTop="10px">
          {scene.name}
        </Box>
      </Link>
      {glance ? <Told glance={glance} /> : <Box color="soft">{problem ?? "Sounding it ..."}</Box>}
      {deeds}
    </Box>
  );
}

/** How far the work on a piece is. */
export function stateWords({ state, next_pour, opens_at }: Glance): string {
  if (state === "waiting") return "Waiting to come out of its dam.";
  if (state !== "pouring") return state === "finished" ? "Finished." : "Planning.";
  return `Pouring: pour ${next_pour ?? 1} ${opens_at ? `opens ${whenText(opens_at)}` : "is next"}.`;
}

function Told({ glance }: { glance: Glance }) {
  const { units } = glance;
  const [across, behind, deep] = glance.inside_mm.map((mm) => lengthText(mm, units));
  const grade = GRADES.find((one) => one === glance.worst_grade);
  const more = (glance.counts.stop ?? 0) + (glance.counts.watch ?? 0) + (glance.counts.note ?? 0) - 1;
  return (
    <>
      <Box color="soft">
        1:{glance.scale}, {across} x {behind}, {deep} deep
      </Box>
      <Box color="depth">
        {glance.pours_count} {glance.pours_count === 1 ? "pour" : "pours"} of {massText(glance.mix_g, units)} from{" "}
        {dayText(glance.first_pour_at)}
        {glance.demould_at ? `, out of the dam ${dayText(glance.demould_at)}` : ""}
      </Box>
      <Box>{stateWords(glance)}</Box>
      {grade ? (
        <Flex gap="2" align="baseline" marginTop="2px">
          <Box flexShrink={0} transform="translateY(2px)">
            <Mark severity={grade} />
          </Box>
          <Box>
            <Box as="span" fontStyle="italic" fontWeight={700} color={TONES[grade]}>
              {grade}{" "}
            </Box>
            {glance.worst}
            {more > 0 ? <Box as="span" color="soft">{`, and ${more} more`}</Box> : null}
          </Box>
        </Flex>
      ) : (
        <Box color="soft">Nothing to stop, nothing to watch.</Box>
      )}
    </>
  );
}
