import { Box, Flex, Grid, Heading, Input } from "@chakra-ui/react";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { type ReactNode, useState } from "react";
import { useNavigate } from "react-router";

import { ask } from "../../api/ask";
import { api, readIn } from "../../api/client";
import type { Begun, Scene, SceneState, Usual } from "../../api/types";
import { UnitsContext } from "../../desk/units";
import { Deed, Word } from "../../ui/pill";
import { Problem } from "../../ui/problem";
import { type Answers, type Asked, FIRST } from "./answers";
import { Living } from "./living";
import { AtHand, BedAndFigures, ThePiece, TheWater, When } from "./questions";
import { Starts } from "./starts";
import { useBegun } from "./use-begun";

const QUESTIONS: readonly { title: string; usual: string; Part: (asked: Asked) => ReactNode }[] = [
  { title: "How large is it, and how is it seen?", usual: "a box for a shelf", Part: ThePiece },
  { title: "What lies below, and who lives there?", usual: "a slope of plaster, three fish", Part: BedAndFigures },
  { title: "How does the water look?", usual: "a green lake", Part: TheWater },
  { title: "What is at hand?", usual: "deep-pour resin, clear sheet", Part: AtHand },
  { title: "When are you free, and how warm is the room?", usual: "evenings and weekends, a living room", Part: When },
];

interface Begins {
  now: string;
  /** keeps a scene; gives it with its id */
  add: (scene: Scene) => Promise<SceneState>;
}

/** Five plain questions, or a piece like one of six; a plan stands beside them from the first look. */
export function BeginPiece({ now, add }: Begins) {
  const usual = useQuery({ queryKey: ["usual"], queryFn: () => ask(api.GET("/api/usual")) });
  const [by, setBy] = useState<"questions" | "starts">("questions");
  if (!usual.data) return <Box color="soft">{usual.error?.message ?? "Looking what you have ..."}</Box>;
  return (
    <>
      <Flex gap="4" marginBottom="3" role="group" aria-label="Ways to begin">
        {(["questions", "starts"] as const).map((way) => (
          <Word
            key={way}
            aria-pressed={by === way}
            fontWeight={by === way ? 800 : 400}
            onClick={() => {
              setBy(way);
            }}
          >
            {way === "questions" ? "five questions" : "like one of these"}
          </Word>
        ))}
      </Flex>
      {by === "questions" ? <Questions usual={usual.data} now={now} add={add} /> : <Starts now={now} add={add} />}
    </>
  );
}

function Questions({ usual, now, add }: Begins & { usual: Usual }) {
  const [answers, setAnswers] = useState<Answers>({ ...FIRST, usual });
  const [open, setOpen] = useState(0);
  const { begun, laid, problem } = useBegun(answers, now);
  const units = answers.usual.units ?? {};
  // before anything below asks: what it is told is said in these units
  readIn(units);
  const take: Asked["take"] = (change) => {
    setAnswers((old) => ({ ...old, ...change }));
  };
  return (
    <UnitsContext value={units}>
      <Grid
        templateColumns={{ base: "minmax(0, 1fr)", lg: "minmax(0, 470px) minmax(0, 1fr)" }}
        gap={{ base: "24px", lg: "56px" }}
      >
        <Box as="section" aria-label="Questions">
          {QUESTIONS.map((question, at) => (
            <Question
              key={question.title}
              number={at + 1}
              title={question.title}
              usual={question.usual}
              open={open === at}
              turn={() => {
                setOpen(open === at ? -1 : at);
              }}
            >
              <question.Part answers={answers} take={take} />
              {at + 1 < QUESTIONS.length ? (
                <Word
                  marginTop="2"
                  textDecoration="underline"
                  onClick={() => {
                    setOpen(at + 1);
                  }}
                >
                  next
                </Word>
              ) : null}
            </Question>
          ))}
          <Finish answers={answers} take={take} begun={begun} laid={laid} add={add} />
        </Box>
        <Living begun={begun} laid={laid} problem={problem} />
      </Grid>
    </UnitsContext>
  );
}

function Question(props: {
  number: number;
  title: string;
  usual: string;
  open: boolean;
  turn: () => void;
  children: ReactNode;
}) {
  return (
    <Box borderBottom="1px solid" borderColor="hair" paddingY="7px">
      <Heading as="h2" fontSize="18px" fontWeight={props.open ? 800 : 500} lineHeight="1.25">
        <Box asChild display="block" width="100%" textAlign="left" cursor="pointer">
          <button type="button" aria-expanded={props.open} onClick={props.turn}>
            <Box as="span" color="depth" fontStyle="italic" marginRight="10px">
              {props.number}
            </Box>
            {props.title}
            {props.open ? null : (
              <Box as="span" color="soft" fontSize="15px" fontWeight={400} display="block" paddingLeft="20px">
                usual: {props.usual}
              </Box>
            )}
          </button>
        </Box>
      </Heading>
      {props.open ? (
        <Box paddingLeft="20px" paddingTop="2px" fontSize="15px">
          {props.children}
        </Box>
      ) : null}
    </Box>
  );
}

/** The name, and the one thing to do next; what is at hand is remembered for the next piece. */
function Finish({
  answers,
  take,
  begun,
  laid,
  add,
}: Asked & { begun: Begun | null; laid: boolean; add: Begins["add"] }) {
  const go = useNavigate();
  const queries = useQueryClient();
  const making = useMutation({
    mutationFn: async () => {
      if (!begun) throw new Error("The plan is not laid yet.");
      await ask(api.PUT("/api/usual", { body: answers.usual }));
      return add(begun.scene);
    },
    onSuccess: async (made) => {
      await Promise.all([
        queries.invalidateQueries({ queryKey: ["scenes"] }),
        queries.invalidateQueries({ queryKey: ["usual"] }),
      ]);
      await go(`/scenes/${made.id}/pours`);
    },
  });
  return (
    <Flex asChild gap="3" marginTop="4" align="center" wrap="wrap">
      <form
        onSubmit={(event) => {
          event.preventDefault();
          making.mutate();
        }}
      >
        <Input
          aria-label="Name of the piece"
          value={answers.name}
          maxLength={80}
          width="230px"
          height="36px"
          fontSize="16px"
          borderColor="hair"
          onChange={(event) => {
            take({ name: event.target.value });
          }}
        />
        <Deed type="submit" loading={making.isPending} disabled={!laid || !answers.name.trim()}>
          Make this plan
        </Deed>
        <Problem>{making.error?.message}</Problem>
      </form>
    </Flex>
  );
}
