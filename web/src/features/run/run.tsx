import { Box, Flex, Heading } from "@chakra-ui/react";
import { useEffect, useState } from "react";
import { Link } from "react-router";

import type { BenchStep, RunWhole } from "../../api/types";
import type { RunEvent } from "../../jobs/outbox";
import { useAlarm, useAwake, useKeys } from "./alarms";
import { Coming } from "./coming";
import { Correcting } from "./correcting";
import { Devices } from "./devices";
import { Entries, targetOf } from "./entries";
import { Gauge } from "./gauge";
import { Head, Progress } from "./head";
import { Mishaps } from "./mishaps";
import { NoteDown } from "./note";
import { clockFigure, Target } from "./parts";
import { readEntry } from "./read";
import { Side } from "./side";
import { ended, event } from "./telling";
import { type FollowedRun, useRun } from "./use-run";
import { Watching } from "./watching";

const FEELS = [
  ["strings", "draws strings"],
  ["prints", "takes a print"],
  ["marks", "a nail marks it"],
  ["dry", "dry"],
] as const;

/** A pour day followed live: one thing at a time. */
export function BenchRun({ id }: { id: string }) {
  const run = useRun(id);
  useAwake();
  if (!run.whole || !run.now)
    return (
      <Box padding="40px" fontSize="24px" color="soft" role="status">
        {run.problem ||
          (run.online
            ? "Laying the bench ..."
            : "The server cannot be reached, and this run was never opened on this device.")}
      </Box>
    );
  return <Bench run={run} whole={run.whole} />;
}

function Bench({ run, whole }: { run: FollowedRun; whole: RunWhole }) {
  const { now, step, stands, instruments } = run;
  const units = whole.document.brief.units ?? {};
  const [typed, setTyped] = useState<Record<string, string>>({});
  const [noting, setNoting] = useState(false);
  const [loud, setLoud] = useState(() => localStorage.getItem("gondola-loud") !== "no");
  const [flaw, setFlaw] = useState("");
  const at_ms = useTick(run.teller.now);
  const scale = instruments.find((one) => one.kind === "scale") ?? null;
  const thermometer = instruments.find((one) => one.kind === "thermometer") ?? null;
  const cup = now?.state.cups.find((one) => one.pour_id === step?.pour_id && one.cup === step.cup);
  const until = stands?.until_ms ?? null;
  const left = until === null || step?.clock_min == null ? null : until - at_ms;
  useAlarm(left !== null && left <= 0 && step ? step.title : null, loud);

  const on = (feels?: string) => {
    if (!step) return;
    const read = readEntry(step, typed, scale, thermometer, targetOf(step, cup), units);
    setFlaw(read.flaw);
    if (read.flaw) return;
    const events =
      needsStart(step, run) && !feels
        ? [event(run.teller, step.id, "pouring", { pour_id: step.pour_id })]
        : ended(run.teller, step, { ...read.entry, feels: feels ?? null });
    setTyped({});
    void run.tell(events);
  };
  const back = () => {
    const events = undoing(run, whole.steps);
    setTyped({});
    if (events.length) void run.tell(events);
  };
  useKeys(() => {
    on();
  }, back);
  if (!now || !stands) return null;
  return (
    <Flex as="main" direction="column" minHeight="100vh" padding={{ base: "12px", md: "20px 36px" }} gap="14px">
      <Head run={run} whole={whole} loud={loud} setLoud={setLoud} at_ms={at_ms} />
      <Progress steps={whole.steps} stands={stands} step={step} />
      <Notices run={run} flaw={flaw} />
      <Mishaps run={run} step={step} />
      <Flex flex="1" gap={{ base: "18px", lg: "36px" }} direction={{ base: "column", lg: "row" }}>
        <Box display={{ base: "none", md: "block" }}>
          <Gauge scene={whole.document} poured={now.state.poured} pouring={step?.pour_id ?? ""} />
        </Box>
        <Box flex="1" minWidth="0">
          {step ? (
            <>
              <Heading as="h1" fontSize={{ base: "40px", md: "64px" }} fontWeight={800} lineHeight="1.05">
                {step.title}
              </Heading>
              <Box
                fontSize={{ base: "22px", md: "28px" }}
                color="soft"
                marginTop="4px"
                marginBottom="18px"
                maxWidth="30em"
              >
                {step.under}
              </Box>
              {left !== null ? (
                <Box
                  fontSize={{ base: "84px", md: "140px" }}
                  fontWeight={800}
                  lineHeight="1"
                  role="timer"
                  color={left > 0 ? "ink" : "caution"}
                >
                  {left > 0 ? clockFigure(left) : "now"}
                </Box>
              ) : null}
              {step.asks === "feels" ? <Coming now={now} reload={run.reload} /> : null}
              <Entries
                step={step}
                now={now}
                units={units}
                scale={scale}
                thermometer={thermometer}
                entry={typed}
                set={(field, text) => {
                  setTyped((old) => ({ ...old, [field]: text }));
                }}
              />
            </>
          ) : (
            <Over whole={whole} />
          )}
          {now.state.cups
            .filter((one) => one.correction && one.pour_id === step?.pour_id && one.cup === step.cup)
            .map((one) => (
              <Correcting
                key={`${one.pour_id}${one.cup}`}
                cup={one}
                units={units}
                add={(part, mass_g) => {
                  void run.tell([
                    event(run.teller, `${one.pour_id}:cup${one.cup}:${part}`, "weighed", {
                      pour_id: one.pour_id,
                      cup: one.cup,
                      part,
                      mass_g: Math.round(mass_g * 1000) / 1000,
                    }),
                  ]);
                }}
              />
            ))}
        </Box>
        <Side step={step} now={now} at_ms={at_ms} units={units}>
          <Watching now={now} units={units} scene={whole.document} />
          <Devices run={run} scale={scale} thermometer={thermometer} step={step} />
        </Side>
      </Flex>
      {noting ? (
        <NoteDown
          run={run}
          step={step}
          close={() => {
            setNoting(false);
          }}
        />
      ) : null}
      <Buttons
        run={run}
        step={step}
        on={on}
        back={back}
        note={() => {
          setNoting(true);
        }}
        left={left}
      />
      <Next steps={whole.steps} stands={stands} />
    </Flex>
  );
}

function Buttons({
  run,
  step,
  on,
  back,
  note,
  left,
}: {
  run: FollowedRun;
  step: BenchStep | null;
  on: (feels?: string) => void;
  back: () => void;
  note: () => void;
  left: number | null;
}) {
  return (
    <Flex gap="16px" wrap="wrap" position="sticky" bottom="0" bg="paper" paddingY="8px">
      <Target onClick={back}>back</Target>
      <Target onClick={note}>note</Target>
      {step?.asks === "feels" ? (
        FEELS.map(([word, said]) => (
          <Target
            key={word}
            flex="1 1 160px"
            main={word === "prints"}
            onClick={() => {
              on(word);
            }}
          >
            {said}
          </Target>
        ))
      ) : step ? (
        <Target
          main
          flex="1 1 300px"
          onClick={() => {
            on();
          }}
        >
          {deed(step, needsStart(step, run), left)}
        </Target>
      ) : null}
    </Flex>
  );
}

/** What the large button says. */
function deed(step: BenchStep, starts: boolean, left: number | null): string {
  if (step.kind === "weigh_a") return "A is in";
  if (step.kind === "weigh_b") return "B is in: start stirring";
  if (step.kind === "colour") return "they are in";
  if (step.kind === "pour" && starts) return "the pour begins";
  if (step.kind === "pour") return step.line_depth_mm === null ? "it is in" : "it is at the line";
  if (left !== null && left > 0) return "done already";
  return "done";
}

/** All that was entered: what the server has, and what waits here. */
const eventsOf = (run: FollowedRun): RunEvent[] => [...((run.now?.events ?? []) as RunEvent[]), ...run.waiting];

const undoneOf = (events: readonly RunEvent[]) =>
  new Set(events.filter((one) => one.kind === "undone").map((one) => String(one.event_id)));

/** A pour to the line is told twice: as it begins, and when it is in. */
function needsStart(step: BenchStep, run: FollowedRun): boolean {
  if (step.kind !== "pour") return false;
  const all = eventsOf(run);
  const undone = undoneOf(all);
  return !all.some((one) => one.kind === "pouring" && one.pour_id === step.pour_id && !undone.has(one.id));
}

/** Takes back what the last step that is over has entered; the events stay. */
function undoing(run: FollowedRun, steps: readonly BenchStep[]) {
  const all = eventsOf(run);
  const undone = undoneOf(all);
  const alive = all.filter(
    (one) => one.kind !== "undone" && one.kind !== "noted" && !undone.has(one.id) && one.step_id,
  );
  const known = new Set(steps.map((step) => step.id));
  const last = alive
    .filter((one) => known.has(one.step_id ?? ""))
    .sort((a, b) => Date.parse(a.at) - Date.parse(b.at))
    .at(-1);
  if (!last) return [];
  return alive
    .filter((one) => one.step_id === last.step_id)
    .map((one) => event(run.teller, "", "undone", { event_id: one.id }));
}

function Notices({ run, flaw }: { run: FollowedRun; flaw: string }) {
  const said = [
    ...(run.online
      ? []
      : ["The server cannot be reached. Go on: what you enter is kept on this device and sent later."]),
    ...(run.waiting.length ? [`${run.waiting.length} entered here, waiting to be sent.`] : []),
    ...(run.now?.trouble ? [run.now.trouble] : []),
    ...(run.now?.state.conflicts.map((one) => one.words) ?? []),
    ...(run.problem ? [run.problem] : []),
    ...(flaw ? [flaw] : []),
  ];
  return said.length ? (
    <Box role="status" borderLeft="6px solid" borderColor="watch" paddingLeft="14px" fontSize="20px" maxWidth="60em">
      {said.map((one) => (
        <div key={one}>{one}</div>
      ))}
    </Box>
  ) : null;
}

function Over({ whole }: { whole: RunWhole }) {
  return (
    <Box fontSize="28px">
      <Heading as="h1" fontSize="64px" fontWeight={800}>
        All poured
      </Heading>
      Leave it covered until it is hard.{" "}
      <Box asChild color="depth" textDecoration="underline">
        <Link to={`/scenes/${whole.run.scene_id}/bench?part=happened`}>What happened, beside what was planned</Link>
      </Box>
    </Box>
  );
}

function Next({ steps, stands }: { steps: readonly BenchStep[]; stands: { done: string[]; current: string } }) {
  const at = steps.findIndex((one) => one.id === stands.current);
  const coming = at < 0 ? [] : steps.slice(at + 1, at + 4).filter((one) => !stands.done.includes(one.id));
  return (
    <Flex justify="space-between" fontSize="20px" color="soft" wrap="wrap" gap="8px">
      <span>{coming.length ? `next: ${coming.map((one) => one.title).join(", ")}` : ""}</span>
      <Box as="span" fontStyle="italic" display={{ base: "none", md: "inline" }}>
        page keys or pedal: on, back
      </Box>
    </Flex>
  );
}

/** The run's clock, four times a second. */
function useTick(now: () => number): number {
  const [at, setAt] = useState(now);
  useEffect(() => {
    const tick = setInterval(() => {
      setAt(now());
    }, 250);
    return () => {
      clearInterval(tick);
    };
  }, [now]);
  return at;
}
