import { Box, Flex } from "@chakra-ui/react";
import { useEffect } from "react";
import { NavLink } from "react-router";

import { Word } from "../ui/pill";
import type { SceneWork } from "../desk/use-scene";
import { type Stage, STAGES, stageWord } from "../stages";
import { HomeLink } from "./home-link";

interface Head {
  work: SceneWork;
  stage: Stage;
  problem: string | null;
  /** gets the place for what needs an answered scene: keys and finder */
  tools: (place: HTMLElement | null) => void;
}

export function Header({ work, stage, problem, tools }: Head) {
  const { step } = work;
  useEffect(() => {
    const press = (event: KeyboardEvent) => {
      if (!(event.ctrlKey || event.metaKey) || event.target instanceof HTMLInputElement) return;
      const key = event.key.toLowerCase();
      if (key !== "z" && key !== "y") return;
      event.preventDefault();
      void step(key === "y" || event.shiftKey ? "redo" : "undo");
    };
    window.addEventListener("keydown", press);
    return () => {
      window.removeEventListener("keydown", press);
    };
  }, [step]);
  const inches = work.document.brief.units?.length === "in";
  const turnUnits = () => {
    const units = inches
      ? ({ length: "mm", temperature: "c", volume: "ml", mass: "g" } as const)
      : ({ length: "in", temperature: "f", volume: "floz", mass: "oz" } as const);
    work.keep({ ...work.document, brief: { ...work.document.brief, units } }, "units");
  };
  return (
    <Flex
      as="header"
      align="center"
      wrap={{ base: "wrap", xl: "nowrap" }}
      minHeight="52px"
      paddingTop={{ base: "6px", xl: "0" }}
      flexShrink="0"
      paddingX="20px"
      borderBottom="1px solid"
      borderColor="hair"
      gap="3"
    >
      <HomeLink />
      <Box
        as="h1"
        fontSize="17px"
        fontWeight={500}
        whiteSpace="nowrap"
        overflow="hidden"
        textOverflow="ellipsis"
        minWidth="0"
      >
        {work.document.name}
        <Box
          as="span"
          color="soft"
          fontWeight={400}
        >{`  1:${work.document.brief.scale} · ${work.document.pours.length} pours`}</Box>
      </Box>
      <Flex
        as="nav"
        aria-label="stages"
        gap="5"
        rowGap="0"
        wrap="wrap"
        marginLeft={{ base: 0, xl: "auto" }}
        order={{ base: 2, xl: 0 }}
      >
        {STAGES.map((one) => (
          <Box
            asChild
            key={one.word}
            fontSize="16px"
            paddingTop="4px"
            paddingBottom="3px"
            borderBottom="4px solid"
            borderColor={one === stage ? "ink" : "transparent"}
            color={one === stage ? "ink" : "soft"}
            fontWeight={one === stage ? 800 : 400}
          >
            <NavLink to={`/scenes/${work.id}/${one.word}`}>{stageWord(one)}</NavLink>
          </Box>
        ))}
      </Flex>
      <Flex align="center" marginLeft="auto" gap="1" whiteSpace="nowrap">
        <Told work={work} problem={problem} />
        <Word onClick={() => void step("undo")} disabled={!work.canUndo}>
          undo
        </Word>
        <Word onClick={() => void step("redo")} disabled={!work.canRedo}>
          redo
        </Word>
        <Word
          onClick={turnUnits}
          aria-label={inches ? "Units: inches; change to metric" : "Units: metric; change to inches"}
        >
          {inches ? "in · °F" : "mm · °C"}
        </Word>
        <Word onClick={turnNight}>night</Word>
        <Flex ref={tools} />
      </Flex>
    </Flex>
  );
}

const SAID = { saved: "saved", saving: "saving ...", unsaved: "not saved", tried: "to look at" };

function Told({ work, problem }: { work: SceneWork; problem: string | null }) {
  const wrong = problem ?? (work.saving.kind === "unsaved" ? `Not saved: ${work.saving.why}` : null);
  const words = wrong ? "not saved" : SAID[work.saving.kind];
  const more = work.saving.kind === "tried" ? `${work.saving.of}’s piece: what you try is shown and not kept.` : null;
  return (
    <Box
      role="status"
      title={wrong ?? more ?? undefined}
      color={wrong ? "caution" : "soft"}
      fontStyle="italic"
      paddingRight="2"
      position="relative"
    >
      {words}
      {wrong ? (
        <Box
          position="absolute"
          right="0"
          top="32px"
          width="320px"
          whiteSpace="normal"
          bg="plot"
          border="1px solid"
          borderColor="caution"
          padding="2"
          zIndex="5"
        >
          {wrong}
        </Box>
      ) : null}
    </Box>
  );
}

function turnNight() {
  const dark = document.documentElement.classList.toggle("night");
  localStorage.setItem("gondola-night", dark ? "1" : "");
}
