import { useChoice } from "../../desk/choice";
import { useCursorHands } from "../../desk/cursor";
import { useDocument } from "../../desk/document";
import { chanceOf, inHundred, useDrawn } from "../../desk/drawn";
import { Box, Flex } from "@chakra-ui/react";

import type { Flag, Outcome, Units } from "../../api/types";
import { Mark, TONES } from "../../ui/mark";
import { Deed, Pill } from "../../ui/pill";
import { Title } from "../../ui/row";
import { temperatureText, whenText } from "../../units/display";
import { Problem } from "../../ui/problem";
import { LearntBefore } from "./lessons";

const GRADES = ["stop", "watch", "note"] as const;

/** What will go wrong: that of the chosen pour or figure first, notes folded. */
export function Flags() {
  const desk = useDocument();
  const { pourNumber, figureId } = useChoice();
  const chosen = (flag: Flag) => (figureId === null ? flag.pour_number === pourNumber : flag.figure_id === figureId);
  const { flags } = desk.outcome;
  const first = [...flags.filter(chosen), ...flags.filter((flag) => !chosen(flag))];
  const notes = first.filter((flag) => flag.severity === "note");
  return (
    <Box as="section" aria-label="Before you pour" id="before-you-pour">
      <Title>Before you pour</Title>
      {desk.trial ? <Trial /> : null}
      <Problem marginBottom="3">{desk.refusal}</Problem>
      {flags.length === 0 ? <Box color="soft">Nothing to stop, nothing to watch.</Box> : <Counts flags={flags} />}
      <Told flags={first.filter((flag) => flag.severity !== "note")} />
      {notes.length > 0 ? (
        <details>
          <Box asChild cursor="pointer" color="depth" minHeight="25px">
            <summary>
              {notes.length} {notes.length === 1 ? "note" : "notes"}
            </summary>
          </Box>
          <Told flags={notes} />
        </details>
      ) : null}
      <LearntBefore />
    </Box>
  );
}

/** On a narrow page: how many flags there are, as the way down to them. */
export function FlagsBelow() {
  const { flags } = useDocument().outcome;
  if (flags.length === 0) return null;
  return (
    <Box asChild display="block" paddingX="20px" paddingTop="8px">
      <a href="#before-you-pour" aria-label="To what will go wrong">
        <Counts flags={flags} />
      </a>
    </Box>
  );
}

/** How many there are of each grade. */
function Counts({ flags }: { flags: readonly Flag[] }) {
  return (
    <Flex columnGap="3" marginBottom="8px" wrap="wrap">
      {GRADES.map((grade) => {
        const count = flags.filter((flag) => flag.severity === grade).length;
        return count === 0 ? null : (
          <Flex key={grade} gap="1" align="center" fontWeight={700} whiteSpace="nowrap">
            <Mark severity={grade} />
            {count} {grade}
          </Flex>
        );
      })}
    </Flex>
  );
}

/** Flags that one thing answers, together in the order of the first of them. */
function gathered(flags: readonly Flag[]): Flag[][] {
  const causes = new Map<string, Flag[]>();
  for (const flag of flags) causes.set(flag.cause, [...(causes.get(flag.cause) ?? []), flag]);
  return [...causes.values()];
}

function Told({ flags }: { flags: readonly Flag[] }) {
  return (
    <Box as="ul" listStyleType="none" padding="0" margin="0">
      {gathered(flags).map(([first, ...rest]) =>
        first ? <OneCause key={`${first.code}-${first.cause}`} first={first} rest={rest} /> : null,
      )}
    </Box>
  );
}

/** Leads to where a flag is. */
function useGo() {
  const choice = useChoice();
  const hands = useCursorHands();
  return (flag: Flag) => {
    if (flag.depth_mm !== null) hands.lower(flag.depth_mm);
    if (flag.at_h !== null) hands.scrub(flag.at_h);
    if (flag.pour_number !== null) choice.choosePour(flag.pour_number);
    choice.chooseFigure(flag.figure_id);
  };
}

function Name({ flag }: { flag: Flag }) {
  const chance = chanceOf(flag, useDrawn());
  return (
    <>
      <Box as="span" fontStyle="italic" color={TONES[flag.severity]} fontWeight={700}>
        {flag.severity}{" "}
      </Box>
      {flag.title.replace(/(\d) (?=[°a-z]{1,3}\b|°)/g, "$1\u00a0")}
      {chance === null ? null : (
        <Box as="span" fontWeight={400} color="soft">
          {`, ${inHundred(chance)}`}
        </Box>
      )}
    </>
  );
}

/** The worst flag of a cause in full, what else comes of it in a line each, and what would help, once. */
function OneCause({ first, rest }: { first: Flag; rest: readonly Flag[] }) {
  const desk = useDocument();
  const go = useGo();
  return (
    <Box as="li" marginBottom="12px">
      <Flex gap="2" align="flex-start">
        <Box paddingTop="3px">
          <Mark severity={first.severity} />
        </Box>
        <Box minWidth="0">
          <Box asChild textAlign="left" fontWeight={700} lineHeight="1.2" cursor="pointer">
            <button
              type="button"
              onClick={() => {
                go(first);
              }}
            >
              <Name flag={first} />
            </button>
          </Box>
          <Box fontSize="14px" lineHeight="1.25" marginTop="2px">
            {first.sentence}
          </Box>
          {rest.map((flag) => (
            <details
              key={`${flag.code}-${flag.pour_number ?? ""}-${flag.figure_id ?? ""}`}
              onToggle={(event) => {
                if (event.currentTarget.open) go(flag);
              }}
            >
              <Box asChild fontSize="14px" cursor="pointer" minHeight="25px" paddingTop="3px">
                <summary>
                  <Name flag={flag} />
                </summary>
              </Box>
              <Box fontSize="14px" lineHeight="1.25" paddingLeft="14px">
                {flag.sentence}
              </Box>
            </details>
          ))}
          <Flex wrap="wrap" gap="1" marginTop="5px" marginRight="-12px">
            {first.remedies.map((remedy) => (
              <Pill
                key={remedy.label}
                tone={TONES[first.severity]}
                onClick={() => {
                  desk.tryOut(remedy);
                }}
                aria-label={`Try: ${remedy.label}`}
              >
                {remedy.label}
              </Pill>
            ))}
          </Flex>
        </Box>
      </Flex>
    </Box>
  );
}

/** A remedy that is tried: before and after, then kept or dropped. */
function Trial() {
  const desk = useDocument();
  if (!desk.trial) return null;
  const answered = desk.outcomeOf === desk.trial.document;
  const rows = facts(desk.trial.before, desk.units);
  const after = facts(desk.outcome, desk.units);
  return (
    <Box role="group" aria-label="Tried" borderLeft="4px solid" borderColor="depth" paddingLeft="3" marginBottom="4">
      <Box fontWeight={800}>
        Tried: {desk.trial.label}
        {desk.trial.edited ? ", and changed since" : ""}
      </Box>
      {/* above the numbers, so that they do not push it away as they come in */}
      <Flex gap="2" marginY="2">
        <Deed
          onClick={() => {
            desk.endTrial(true);
          }}
          height="28px"
        >
          keep it
        </Deed>
        <Pill
          onClick={() => {
            desk.endTrial(false);
          }}
        >
          drop it
        </Pill>
      </Flex>
      <Box fontSize="14px" color="soft">
        What you change now goes into what is tried; the scene stays as it was until you keep it.
      </Box>
      <Box asChild width="100%" fontSize="14px">
        <table>
          <thead>
            <tr>
              <th />
              <th>before</th>
              <th>after</th>
            </tr>
          </thead>
          <tbody>
            {rows.map(([word, value], index) => (
              <tr key={word}>
                <Box asChild color="soft" textAlign="left" fontWeight={400} whiteSpace="nowrap">
                  <th scope="row">{word}</th>
                </Box>
                <Box asChild textAlign="right" whiteSpace="nowrap">
                  <td>{value}</td>
                </Box>
                <Box asChild textAlign="right" fontWeight={700} paddingLeft="8px" whiteSpace="nowrap">
                  <td>{answered ? after[index]?.[1] : "..."}</td>
                </Box>
              </tr>
            ))}
          </tbody>
        </table>
      </Box>
    </Box>
  );
}

/** "Wed 10 Mar, 21:36" as "10 Mar"; other words as they are. */
const dayOfMonth = (when: string) => /\d+ \w+(?=,)/.exec(when)?.[0] ?? when;

function facts(outcome: Outcome, units: Units): [string, string][] {
  const count = (severity: string) => outcome.flags.filter((flag) => flag.severity === severity).length;
  const { hottest_c, demould_at } = outcome.whole;
  return [
    ["hottest", hottest_c === null ? "none" : temperatureText(hottest_c, units)],
    ["pours", String(outcome.pours.length)],
    ["dam off", dayOfMonth(whenText(demould_at))],
    ["stop / watch", `${count("stop")} / ${count("watch")}`],
  ];
}
