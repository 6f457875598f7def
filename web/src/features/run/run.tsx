import { Box, Flex, Heading } from "@chakra-ui/react";
import { useEffect, useState } from "react";
import { Link } from "react-router";

import type { RunWhole } from "../../api/types";
import { WINDOW } from "../../ui/window";
import { inQuiet, localHour } from "./quiet";
import { useAlarm, useAwake, useKeptPage, useKeys } from "./alarms";
import { Buttons, NextUp } from "./buttons";
import { Debriefing } from "./debriefing";
import { Devices } from "./devices";
import { Doing } from "./doing";
import { needsStart, undoing } from "./entered";
import { targetOf } from "./entries";
import { Gauge } from "./gauge";
import { Head, Progress } from "./head";
import { Mishaps } from "./mishaps";
import { NoteDown } from "./note";
import { readEntry } from "./read";
import { Side } from "./side";
import { ended, event } from "./telling";
import { type FollowedRun, useRun } from "./use-run";
import { Watching } from "./watching";

/** A pour day followed live: one thing at a time. */
export function BenchRun({ id }: { id: string }) {
  const run = useRun(id);
  useAwake();
  useKeptPage();
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
  const { brief, bed } = whole.document;
  const units = brief.units ?? {};
  const byVolume = brief.habits?.measures === "volume";
  const [entry, setEntry] = useState<Record<string, string>>({});
  const [noting, setNoting] = useState(false);
  const [loud, setLoud] = useState(() => localStorage.getItem("gondola-loud") !== "no");
  const [flaw, setFlaw] = useState("");
  const at_ms = useTick(run.teller.now);
  const scale = instruments.find((one) => one.kind === "scale") ?? null;
  const thermometer = instruments.find((one) => one.kind === "thermometer") ?? null;
  const cup = now?.state.cups.find((one) => one.pour_id === step?.pour_id && one.cup === step.cup);
  const until = stands?.until_ms ?? null;
  const left = until === null || step?.clock_min == null ? null : until - at_ms;
  const quiet = now !== null && inQuiet(brief.quiet, localHour(now, at_ms));
  useAlarm(left !== null && left <= 0 && step ? step.title : null, loud && !quiet);

  const on = (feels?: string) => {
    if (!step || now?.ended_at) return;
    const read = readEntry(step, entry, scale, thermometer, targetOf(step, cup), units, byVolume);
    setFlaw(read.flaw);
    if (read.flaw || (step.asks === "feels" && !feels)) return;
    setEntry({});
    void run.tell(
      needsStart(step, run)
        ? [event(run.teller, step.id, "pouring", { pour_id: step.pour_id })]
        : ended(run.teller, step, { ...read.entry, feels: feels ?? null }),
    );
  };
  const back = () => {
    const events = undoing(run, whole.steps);
    setEntry({});
    if (events.length) void run.tell(events);
  };
  useKeys(() => {
    on();
  }, back);
  if (!now || !stands) return null;
  const over = now.ended_at !== null || step === null;
  return (
    <Flex as="main" direction="column" minHeight={WINDOW} padding={{ base: "12px", md: "20px 36px" }} gap="14px">
      <Head run={run} whole={whole} loud={loud} setLoud={setLoud} at_ms={at_ms} />
      <Progress steps={whole.steps} stands={stands} step={step} />
      <Notices run={run} flaw={flaw} />
      {over ? null : <Mishaps run={run} step={step} />}
      <Flex flex="1" gap={{ base: "18px", lg: "36px" }} direction={{ base: "column", lg: "row" }}>
        <Box display={{ base: "none", lg: "block" }}>
          <Gauge scene={whole.document} poured={now.state.poured} pouring={step?.pour_id ?? ""} />
        </Box>
        <Box flex="1" minWidth="0">
          {over || !step ? (
            <Over whole={whole} run={run} />
          ) : (
            <Doing
              run={run}
              left={left}
              step={step}
              now={now}
              units={units}
              byVolume={byVolume}
              sealed={bed.sealed}
              scale={scale}
              thermometer={thermometer}
              entry={entry}
              set={(field, text) => {
                setEntry((old) => ({ ...old, [field]: text }));
              }}
            />
          )}
        </Box>
        {over ? null : (
          <Side step={step} now={now} done={stands.done} at_ms={at_ms}>
            <Watching now={now} units={units} scene={whole.document} />
            <Devices run={run} scale={scale} thermometer={thermometer} step={step} />
          </Side>
        )}
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
        left={left}
        on={on}
        back={back}
        note={() => {
          setNoting(true);
        }}
      />
      <NextUp steps={whole.steps} stands={stands} />
    </Flex>
  );
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

function Over({ whole, run }: { whole: RunWhole; run: FollowedRun }) {
  if (run.now?.rehearsal) return <Debriefing now={run.now} />;
  return (
    <Box fontSize="28px">
      <Heading as="h1" fontSize="64px" fontWeight={800}>
        {run.step ? "The run is over" : "All poured"}
      </Heading>
      Leave it covered until it is hard.{" "}
      <Box asChild color="depth" textDecoration="underline">
        <Link to={`/scenes/${whole.run.scene_id}/bench?part=happened`}>What happened, beside what was planned</Link>
      </Box>
    </Box>
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
