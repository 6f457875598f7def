import { Box, Flex } from "@chakra-ui/react";
import { useState } from "react";

import { ask } from "../../api/ask";
import { api } from "../../api/client";
import type { BenchStep, InstrumentState } from "../../api/types";
import { Target } from "./parts";
import type { FollowedRun } from "./use-run";

type Kind = InstrumentState["kind"];

/** Scale and thermometer: which there are, a tare, and for simulated ones the hand that pours. */
export function Devices({
  run,
  scale,
  thermometer,
  step,
}: {
  run: FollowedRun;
  scale: InstrumentState | null;
  thermometer: InstrumentState | null;
  step: BenchStep | null;
}) {
  const [problem, setProblem] = useState("");
  const [open, setOpen] = useState(false);
  const tried = (question: Promise<unknown>) => {
    question.then(
      () => {
        setProblem("");
      },
      (flaw: unknown) => {
        setProblem(flaw instanceof Error ? flaw.message : "It does not answer.");
      },
    );
  };
  const say = (kind: Kind, line: string) => {
    tried(ask(api.POST("/api/instruments/{kind}/say", { params: { path: { kind } }, body: { line } })));
  };
  const connect = (kind: Kind, port: number | null) => {
    tried(
      ask(
        api.PUT("/api/instruments/{kind}", { params: { path: { kind } }, body: { port, run_id: run.now?.id ?? null } }),
      ),
    );
  };
  const weighing = step?.asks === "mass";
  const more =
    step?.target_g && scale
      ? Math.max(
          0,
          (run.now?.state.cups.find(
            (one) => one.pour_id === step.pour_id && one.cup === step.cup && step.kind === "weigh_b",
          )?.target_b_g ?? step.target_g) - (scale.mass_g ?? 0),
        )
      : 0;
  return (
    <Box fontSize="20px" role="group" aria-label="Devices">
      {scale && weighing ? (
        <Flex gap="10px" wrap="wrap" marginBottom="8px">
          <Target
            minHeight="64px"
            fontSize="20px"
            onClick={() => {
              say("scale", "tare");
            }}
          >
            tare
          </Target>
          {scale.simulated ? (
            <Target
              minHeight="64px"
              fontSize="20px"
              onClick={() => {
                say("scale", `pour ${more.toFixed(2)}`);
              }}
            >
              pour to the mark
            </Target>
          ) : null}
        </Flex>
      ) : null}
      <Target
        minHeight="64px"
        fontSize="20px"
        aria-expanded={open}
        onClick={() => {
          setOpen(!open);
        }}
      >
        {scale || thermometer ? "devices" : "connect a scale or thermometer"}
      </Target>
      {open ? (
        <Box marginTop="10px">
          {(["scale", "thermometer"] as const).map((kind) => (
            <Device key={kind} kind={kind} state={kind === "scale" ? scale : thermometer} connect={connect} />
          ))}
        </Box>
      ) : null}
      {problem ? <Box role="alert">{problem}</Box> : null}
    </Box>
  );
}

function Device({
  kind,
  state,
  connect,
}: {
  kind: Kind;
  state: InstrumentState | null;
  connect: (kind: Kind, port: number | null) => void;
}) {
  const [port, setPort] = useState(kind === "scale" ? "7311" : "7312");
  return (
    <Box marginTop="8px">
      <Box fontWeight={700}>
        {kind}
        <Box as="span" fontWeight={400} color="soft">
          {state
            ? `, ${state.plugged ? "reads" : "silent"}${state.simulated ? ", simulated" : ` at port ${state.port}`}`
            : ", none"}
        </Box>
      </Box>
      <Flex gap="10px" align="center" wrap="wrap">
        <input
          aria-label={`port of the ${kind}`}
          inputMode="numeric"
          value={port}
          onChange={(event) => {
            setPort(event.target.value);
          }}
          style={{
            width: "90px",
            height: "64px",
            fontSize: "22px",
            textAlign: "center",
            border: "3px solid var(--hair)",
            borderRadius: "12px",
            background: "var(--plot)",
            color: "var(--ink)",
          }}
        />
        <Target
          minHeight="64px"
          fontSize="20px"
          onClick={() => {
            connect(kind, Number(port));
          }}
        >
          listen
        </Target>
        <Target
          minHeight="64px"
          fontSize="20px"
          onClick={() => {
            connect(kind, null);
          }}
        >
          simulate
        </Target>
      </Flex>
    </Box>
  );
}
