import { Box } from "@chakra-ui/react";
import { useEffect, useState } from "react";
import { useNavigate } from "react-router";

import { useChoice } from "../desk/choice";
import { useDocument } from "../desk/document";
import { STAGES } from "../stages";
import { Word } from "../ui/pill";
import { SheetOver } from "../ui/sheet-over";
import { Finder } from "./finder";

const KEYS = [
  ["?", "this page of keys"],
  ["/", "find anything by typing"],
  ["1 to 8", "the stages, Tank to Log"],
  ["[  ]", "the pour below, the pour above"],
  ["Ctrl Z, Ctrl Y", "undo, redo"],
  ["Tab, then arrows", "the gondola, a layer line, a start, the moment: arrows move a little, Page keys more"],
  ["B C R A S T G W D", "on the bed: the hands, by their letters"],
  ["Enter, Escape", "take what is typed, or leave it as it was"],
] as const;

const typing = (target: EventTarget | null) =>
  target instanceof HTMLInputElement || target instanceof HTMLSelectElement || target instanceof HTMLTextAreaElement;

/** The keys of the page, the page that lists them, and the finder. */
export function Keys() {
  const [over, setOver] = useState<"keys" | "finder" | null>(null);
  const { work } = useDocument();
  const { pourNumber, choosePour } = useChoice();
  const go = useNavigate();
  useEffect(() => {
    const press = (event: KeyboardEvent) => {
      if (event.ctrlKey || event.metaKey || event.altKey || typing(event.target) || over) return;
      const stage = STAGES[Number(event.key) - 1];
      if (event.key === "?") setOver("keys");
      else if (event.key === "/") setOver("finder");
      else if (event.key === "[") choosePour(Math.max(1, pourNumber - 1));
      else if (event.key === "]") choosePour(pourNumber + 1);
      else if (stage) void go(`/scenes/${work.id}/${stage.word}`);
      else return;
      event.preventDefault();
    };
    window.addEventListener("keydown", press);
    return () => {
      window.removeEventListener("keydown", press);
    };
  }, [over, work.id, pourNumber, choosePour, go]);
  const close = () => {
    setOver(null);
  };
  return (
    <>
      <Word
        aria-keyshortcuts="/"
        onClick={() => {
          setOver("finder");
        }}
      >
        find
      </Word>
      <Word
        aria-label="Keys"
        minWidth="25px"
        aria-keyshortcuts="?"
        onClick={() => {
          setOver("keys");
        }}
      >
        ?
      </Word>
      {over === "finder" ? <Finder close={close} /> : null}
      {over === "keys" ? (
        <SheetOver label="Keys" close={close}>
          <Box as="h2" fontSize="20px" fontWeight={800} marginBottom="2">
            Keys
          </Box>
          <Box as="dl" display="grid" gridTemplateColumns="auto 1fr" columnGap="20px" rowGap="6px">
            {KEYS.map(([key, what]) => (
              <Box key={key} display="contents">
                <Box as="dt" fontWeight={700}>
                  {key}
                </Box>
                <dd>{what}</dd>
              </Box>
            ))}
          </Box>
          <Word marginTop="3" onClick={close}>
            put it away
          </Word>
        </SheetOver>
      ) : null}
    </>
  );
}
