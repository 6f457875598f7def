import { Box, Flex } from "@chakra-ui/react";
import { useState } from "react";

import type { Outcome } from "../../api/types";
import { useDocument } from "../../desk/document";
import { Pill, Word } from "../../ui/pill";
import { Title } from "../../ui/row";

type Step = Outcome["work"][number];
const OWN = "own:";

/** The steps of the whole piece in their order: moved by hand, those out of order marked, own ones added. */
export function Order() {
  const { scene, outcome, keep } = useDocument();
  const [adding, setAdding] = useState("");
  const names = new Map((scene.order ?? []).map((one) => [one.id, one.name ?? ""]));
  const steps = outcome.work;
  const put = (ids: readonly string[], note: string, added?: { id: string; name: string }) => {
    const order = ids.map((id) => ({ id, name: added?.id === id ? added.name : (names.get(id) ?? "") }));
    keep({ ...scene, order }, note);
  };
  const move = (step: Step, by: number) => {
    const ids = steps.map((one) => one.id);
    const at = ids.indexOf(step.id);
    if (at + by < 0 || at + by >= ids.length) return;
    ids.splice(at, 1);
    ids.splice(at + by, 0, step.id);
    put(ids, "order of the work");
  };
  const add = () => {
    const name = adding.trim();
    if (!name) return;
    const id = freeId(steps);
    put([...steps.map((one) => one.id), id], `step: ${name}`, { id, name });
    setAdding("");
  };
  return (
    <Box role="group" aria-label="Order of the work">
      <Title>Order of the work</Title>
      <Box as="ol" listStyleType="none">
        {steps.map((step, at) => (
          <Flex
            as="li"
            key={step.id}
            gap="1"
            align="center"
            fontWeight={step.id.startsWith("pour:") ? 800 : 400}
            color={step.wrong ? "caution" : "ink"}
          >
            <Box flex="1" lineHeight="1.2">
              {step.words}
              {step.wrong ? <Box as="span" fontStyle="italic">{` too late`}</Box> : null}
            </Box>
            <Word aria-label={`${step.words}: earlier`} disabled={at === 0} onClick={() => move(step, -1)}>
              ↑
            </Word>
            <Word aria-label={`${step.words}: later`} disabled={at === steps.length - 1} onClick={() => move(step, 1)}>
              ↓
            </Word>
            {step.id.startsWith(OWN) ? (
              <Word
                aria-label={`take out ${step.words}`}
                onClick={() => {
                  put(
                    steps.map((one) => one.id).filter((id) => id !== step.id),
                    `step taken out: ${step.words}`,
                  );
                }}
              >
                ×
              </Word>
            ) : null}
          </Flex>
        ))}
      </Box>
      <Box asChild marginTop="2">
        <form
          onSubmit={(event) => {
            event.preventDefault();
            add();
          }}
        >
          <input
            aria-label="a step of your own"
            placeholder="a step of your own"
            value={adding}
            maxLength={80}
            style={{ border: "1px solid var(--hair)", padding: "3px 6px", background: "var(--plot)", width: "100%" }}
            onChange={(event) => {
              setAdding(event.target.value);
            }}
          />
          <Pill type="submit" marginTop="1" disabled={!adding.trim()}>
            add it
          </Pill>
        </form>
      </Box>
      {(scene.order ?? []).length > 0 ? (
        <Word
          onClick={() => {
            keep({ ...scene, order: [] }, "usual order");
          }}
        >
          the usual order again
        </Word>
      ) : null}
    </Box>
  );
}

function freeId(steps: readonly Step[]): string {
  const held = new Set(steps.map((one) => one.id));
  for (let at = 1; ; at += 1) {
    const id = `${OWN}${at}`;
    if (!held.has(id)) return id;
  }
}
