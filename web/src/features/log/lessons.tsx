import { Box } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";

import { ask } from "../../api/ask";
import { api } from "../../api/client";
import type { FoundEntry, Scene } from "../../api/types";
import { useDocument } from "../../desk/document";
import { faultWord, useLessonsMet, useStory } from "../../desk/story";
import { Deed } from "../../ui/pill";
import { Problem } from "../../ui/problem";
import { Choice, Title } from "../../ui/row";

type Pin = FoundEntry["pins"][number];

/** Lessons: those of other pieces that this plan should hear, one to write, and all that was ever written. */
export function Lessons() {
  const { scene } = useDocument();
  const { enter } = useStory();
  const met = useLessonsMet();
  const pins = pinsOf(scene);
  const [text, setText] = useState("");
  const [pin, setPin] = useState(0);
  return (
    <>
      <Title aside="from other pieces">Learnt before</Title>
      {met?.map((one) => (
        <Found key={one.id} entry={one} />
      ))}
      {met?.length === 0 ? <Box color="soft">No lesson is pinned to what this plan uses.</Box> : null}
      <Box marginTop="4">
        <Title>Write a lesson</Title>
      </Box>
      <Box asChild width="100%" border="1px solid" borderColor="hair" padding="1" bg="plot">
        <textarea
          aria-label="A lesson"
          rows={2}
          maxLength={2000}
          value={text}
          onChange={(event) => {
            setText(event.target.value);
          }}
        />
      </Box>
      <Choice
        label="pinned to"
        value={String(pin)}
        options={pins.map(([word], at) => [String(at), word] as const)}
        take={(value) => {
          setPin(Number(value));
        }}
      />
      <Deed
        marginTop="2"
        disabled={text.trim() === ""}
        loading={enter.isPending}
        onClick={() => {
          const chosen = pins[pin];
          if (chosen) enter.mutate({ kind: "lesson", text, pins: [chosen[1]] });
          setText("");
        }}
      >
        Pin it
      </Deed>
      <Problem>{enter.error?.message}</Problem>
      {enter.isSuccess ? (
        <Box role="status" color="soft">
          It is met again wherever a plan uses that.
        </Box>
      ) : null}
    </>
  );
}

/** What a lesson of this scene can be pinned to, in words. */
export function pinsOf(scene: Scene): [string, Pin][] {
  const poured = scene.resins.filter((one) => scene.pours.some((pour) => pour.resin_id === one.id));
  return [
    ...poured.map((one): [string, Pin] => [one.name, { kind: "resin", key: one.id }]),
    [`a dam of ${scene.tank.wall.material.name}`, { kind: "dam", key: scene.tank.wall.material.id }],
    [`measuring by ${scene.brief.habits.measures}`, { kind: "habit", key: scene.brief.habits.measures }],
    ...scene.colourants.map((one): [string, Pin] => [one.name, { kind: "colourant", key: one.id }]),
  ];
}

/** Entries of all pieces by their words. */
export function Search() {
  const [asked, setAsked] = useState("");
  const [kind, setKind] = useState("");
  const found = useQuery({
    queryKey: ["search", asked, kind],
    staleTime: 0,
    placeholderData: (before) => before,
    queryFn: () =>
      ask(
        api.GET("/api/log/search", {
          params: { query: { asked, ...(kind ? { kind: kind as FoundEntry["kind"] } : {}) } },
        }),
      ),
  });
  return (
    <>
      <Title aside="over all pieces">Search</Title>
      <Box asChild width="100%" border="1px solid" borderColor="hair" padding="1" bg="plot">
        <input
          type="search"
          aria-label="Words to search for"
          value={asked}
          maxLength={200}
          onChange={(event) => {
            setAsked(event.target.value);
          }}
        />
      </Box>
      <Choice
        label="only"
        value={kind}
        options={[
          ["", "all"],
          ["note", "notes"],
          ["photograph", "photographs"],
          ["fault", "faults"],
          ["lesson", "lessons"],
        ]}
        take={setKind}
      />
      <Problem>{found.error?.message}</Problem>
      {found.data?.map((one) => (
        <Found key={one.id} entry={one} />
      ))}
      {found.data?.length === 0 ? <Box color="soft">Nothing holds these words.</Box> : null}
    </>
  );
}

function Found({ entry }: { entry: FoundEntry }) {
  return (
    <Box borderBottom="1px solid" borderColor="wash" paddingY="4px">
      {entry.fault ? <b>{faultWord(entry.fault.kind)} </b> : null}
      {entry.text || entry.photograph?.name}
      <Box asChild fontSize="14px" color="depth" display="block">
        <Link to={`/scenes/${entry.scene_id}/log`}>
          {entry.kind} of {entry.scene_name}
        </Link>
      </Box>
    </Box>
  );
}
