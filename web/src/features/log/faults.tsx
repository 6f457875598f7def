import { Box } from "@chakra-ui/react";
import { useState } from "react";

import type { FaultKind } from "../../api/types";
import { useDocument } from "../../desk/document";
import { LengthField } from "../../desk/fields";
import { FAULTS, faultWord, useSpot, useStory } from "../../desk/story";
import { Deed, Word } from "../../ui/pill";
import { Problem } from "../../ui/problem";
import { Choice, Title } from "../../ui/row";
import { lengthText } from "../../units/display";

/** Faults are marked here: pressed on the section or typed, by kind and size. */
export function Faults() {
  const { units } = useDocument();
  const { entries, enter, takeBack } = useStory();
  const { spot, press } = useSpot();
  const [kind, setKind] = useState<FaultKind>("bubbles");
  const [size_mm, setSize] = useState(2);
  const marked = entries.data?.filter((one) => one.fault) ?? [];
  return (
    <>
      <Title aside="press where it is">Mark a fault</Title>
      <Choice
        label="what is wrong"
        value={kind}
        options={FAULTS}
        take={(value) => {
          setKind(value as FaultKind);
        }}
      />
      <LengthField label="size" value={size_mm} take={setSize} />
      <LengthField
        label="from the left"
        value={spot?.x_mm ?? 0}
        take={(x_mm) => {
          press({ x_mm, depth_mm: spot?.depth_mm ?? 0 });
        }}
      />
      <LengthField
        label="depth"
        value={spot?.depth_mm ?? 0}
        take={(depth_mm) => {
          press({ x_mm: spot?.x_mm ?? 0, depth_mm });
        }}
      />
      <Deed
        marginTop="2"
        loading={enter.isPending}
        onClick={() => {
          enter.mutate({ kind: "fault", place: spot, fault: { kind, size_mm, figure_id: null } });
          press(null);
        }}
      >
        {spot ? "Mark it at the cross" : "Mark it, place not said"}
      </Deed>
      <Problem>{enter.error?.message}</Problem>
      <Box as="ul" listStyleType="none" padding="0" margin="0" marginTop="2">
        {marked.map((entry) => (
          <Box as="li" key={entry.id} borderBottom="1px solid" borderColor="wash">
            <Box as="span" color="caution">
              {entry.fault ? faultWord(entry.fault.kind) : ""}
            </Box>
            {entry.place ? `, ${lengthText(entry.place.depth_mm, units)} deep` : ""}
            <Word
              aria-label={`Take back ${entry.fault ? faultWord(entry.fault.kind) : "fault"}`}
              onClick={() => {
                takeBack.mutate({ id: entry.id, back: true });
              }}
            >
              take back
            </Word>
          </Box>
        ))}
      </Box>
    </>
  );
}
