import { Box } from "@chakra-ui/react";
import { useState } from "react";

import type { EntryState } from "../../api/types";
import { useDocument } from "../../desk/document";
import { faultWord, useSpot, useStory } from "../../desk/story";
import { BringFile } from "../../ui/bring-file";
import { Pill, Word } from "../../ui/pill";
import { Problem } from "../../ui/problem";
import { Title } from "../../ui/row";
import { lengthText, whenText } from "../../units/display";
import { Over } from "./over";

/** What was seen and said of the piece, in the order in which it happened; notes and photographs come in here. */
export function Story() {
  const { entries, enter, takeBack, bring } = useStory();
  const { work } = useDocument();
  const { spot, press } = useSpot();
  const [text, setText] = useState("");
  const [gone, setGone] = useState<number | null>(null);
  return (
    <>
      <Title aside={<a href={`/api/scenes/${work.id}/story.zip`}>a page to hand on</a>}>The story</Title>
      <Box asChild width="100%" border="1px solid" borderColor="hair" padding="1" bg="plot">
        <textarea
          aria-label="A note"
          rows={2}
          maxLength={2000}
          value={text}
          placeholder="what you see"
          onChange={(event) => {
            setText(event.target.value);
          }}
        />
      </Box>
      <Pill
        disabled={text.trim() === ""}
        loading={enter.isPending}
        onClick={() => {
          enter.mutate({ kind: "note", text, place: spot });
          setText("");
          press(null);
        }}
      >
        {spot ? "put it down at the cross" : "put it down"}
      </Pill>{" "}
      <BringFile
        label="Photograph"
        accept="image/jpeg,image/png,image/webp"
        take={(file) => {
          bring.mutate(spot ? { file, place: spot } : { file });
        }}
      >
        a photograph
      </BringFile>
      <Problem>{enter.error?.message ?? bring.error?.message ?? takeBack.error?.message}</Problem>
      {bring.data ? (
        <Box role="status" fontSize="14px" color="soft">
          {bring.data.words.join(" ")}
        </Box>
      ) : null}
      {gone === null ? null : (
        <Word
          paddingLeft="0"
          onClick={() => {
            takeBack.mutate({ id: gone, back: false });
            setGone(null);
          }}
        >
          put back what was taken
        </Word>
      )}
      <Box as="ul" listStyleType="none" padding="0" margin="0" marginTop="2">
        {entries.data?.toReversed().map((entry) => (
          <OneEntry
            key={entry.id}
            entry={entry}
            takeBack={() => {
              takeBack.mutate({ id: entry.id, back: true });
              setGone(entry.id);
            }}
          />
        ))}
      </Box>
      {entries.data?.length === 0 ? <Box color="soft">Nothing is written of this piece yet.</Box> : null}
    </>
  );
}

function OneEntry({ entry, takeBack }: { entry: EntryState; takeBack: () => void }) {
  const { units } = useDocument();
  return (
    <Box as="li" borderBottom="1px solid" borderColor="wash" paddingY="4px">
      <Box fontSize="14px" color="soft">
        {whenText(entry.at.slice(0, 16))}
        {entry.place ? `, ${lengthText(entry.place.depth_mm, units)} deep` : ""}
      </Box>
      {entry.photograph ? <Over entry={entry} /> : null}
      <Box>
        {entry.fault ? (
          <Box as="span" color="caution" fontWeight={700}>
            {faultWord(entry.fault.kind)}
            {entry.fault.size_mm ? `, ${lengthText(entry.fault.size_mm, units, 1)}` : ""}{" "}
          </Box>
        ) : null}
        {entry.kind === "lesson" ? <b>Lesson: </b> : null}
        {entry.text}
      </Box>
      <Word paddingLeft="0" fontSize="14px" aria-label={`Take back ${entry.text || entry.kind}`} onClick={takeBack}>
        take back
      </Word>
      {entry.photograph ? (
        <Box asChild fontSize="14px" color="depth" marginLeft="2">
          <a href={`/api/entries/${entry.id}/original`}>original</a>
        </Box>
      ) : null}
    </Box>
  );
}
