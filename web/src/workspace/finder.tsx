import { Box, Flex, Input } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { useNavigate } from "react-router";

import { ask } from "../api/ask";
import { api } from "../api/client";
import { useChoice } from "../desk/choice";
import { useDocument } from "../desk/document";
import { useKnown } from "../ui/known";
import { SheetOver } from "../ui/sheet-over";
import { type Found, matching, placesOf, scenesFound, wordsFound } from "./places";

/** Finds a stage, a setting, a figure, a flag, a scene or a word of the trade by typing. */
export function Finder({ close }: { close: () => void }) {
  const { work, scene, outcome } = useDocument();
  const { chooseFigure, choosePour } = useChoice();
  const go = useNavigate();
  const known = useKnown();
  const scenes = useQuery({ queryKey: ["scenes"], queryFn: () => ask(api.GET("/api/scenes")) });
  const [typed, setTyped] = useState("");
  const [at, setAt] = useState(0);
  const all = [...placesOf(work.id, scene, outcome), ...scenesFound(scenes.data ?? []), ...wordsFound(known)];
  const found = matching(all, typed);
  const open = (one: Found | undefined) => {
    if (!one?.to) return;
    if (one.figureId) chooseFigure(one.figureId);
    if (one.pourNumber) choosePour(one.pourNumber);
    close();
    void go(one.to);
  };
  return (
    <SheetOver label="Find" close={close}>
      <Input
        aria-label="Find anything"
        placeholder="a stage, a figure, a flag, a setting, a scene, a word"
        autoFocus
        value={typed}
        role="combobox"
        aria-expanded
        aria-controls="found"
        aria-activedescendant={found[at] ? `found-${at}` : undefined}
        height="40px"
        fontSize="18px"
        borderColor="hair"
        onChange={(event) => {
          setTyped(event.target.value);
          setAt(0);
        }}
        onKeyDown={(event) => {
          if (event.key === "ArrowDown") setAt(Math.min(found.length - 1, at + 1));
          else if (event.key === "ArrowUp") setAt(Math.max(0, at - 1));
          else if (event.key === "Enter") open(found[at]);
          else return;
          event.preventDefault();
        }}
      />
      <Box as="ul" id="found" role="listbox" aria-label="Found" listStyleType="none" marginTop="3">
        {found.map((one, index) => (
          <Box
            as="li"
            role="option"
            id={`found-${index}`}
            key={`${one.kind}-${one.word}-${one.to ?? ""}`}
            aria-selected={index === at}
            bg={index === at ? "wash" : "transparent"}
            cursor={one.to ? "pointer" : "default"}
            paddingX="8px"
            paddingY="5px"
            onClick={() => {
              open(one);
            }}
          >
            <Flex justify="space-between" gap="4">
              <Box as="span" fontWeight={700}>
                {one.word}
              </Box>
              <Box as="span" color="soft" fontStyle="italic">
                {one.kind}
              </Box>
            </Flex>
            {one.kind === "stage" || one.kind === "scene" ? null : (
              <Box color="soft" fontSize="14px" lineHeight="1.25">
                {one.more}
              </Box>
            )}
          </Box>
        ))}
      </Box>
      {found.length === 0 ? <Box color="soft">Nothing here is called so.</Box> : null}
    </SheetOver>
  );
}
