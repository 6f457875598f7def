import { Box } from "@chakra-ui/react";
import { useMutation, useQuery } from "@tanstack/react-query";
import { useNavigate } from "react-router";

import { ask } from "../../api/ask";
import { api } from "../../api/client";
import type { Outcome, PourOutcome, Scene } from "../../api/types";
import { useDocument } from "../../desk/document";
import { useNewestRun } from "../../desk/runs";
import { Pill } from "../../ui/pill";
import { Problem } from "../../ui/problem";
import { Title } from "../../ui/row";
import { hoursText, temperatureText, weighedText, whenText } from "../../units/display";

/** The latest run beside the plan: what each pour was meant to be, and what it was; what that raises. */
export function HappenedPart() {
  const { units } = useDocument();
  const run = useNewestRun();
  const both = useQuery({
    queryKey: ["happened", run?.id],
    enabled: run !== undefined,
    staleTime: 0,
    queryFn: async () => {
      if (!run) return null;
      const scenes = await ask(api.GET("/api/runs/{run_id}/happened", { params: { path: { run_id: run.id } } }));
      const [planned, happened] = await Promise.all([
        ask(api.POST("/api/evaluate", { body: scenes.planned })),
        ask(api.POST("/api/evaluate", { body: scenes.happened })),
      ]);
      return { planned, happened, started: scenes };
    },
  });
  if (both.error) return <Problem>{both.error.message}</Problem>;
  if (both.isPending) return <Box color="soft">Reckoning ...</Box>;
  if (!both.data)
    return (
      <>
        <Title>As it happened</Title>
        <Box>Nothing has been entered at the bench yet. What happens there will stand here beside the plan.</Box>
      </>
    );
  const { planned, happened } = both.data;
  return (
    <>
      <Title aside="planned, and happened">As it happened</Title>
      <Beside happened={both.data.started.happened} />
      {happened.pours.map((pour, at) => {
        const meant = planned.pours[at];
        return meant ? <OnePour key={pour.id} meant={meant} was={pour} units={units} /> : null;
      })}
      <NewFlags planned={planned} happened={happened} />
    </>
  );
}

/** What happened as a plan of its own beside the plan: one depth axis, one set of days, what one has over the other. */
function Beside({ happened }: { happened: Scene }) {
  const { work } = useDocument();
  const go = useNavigate();
  const keep = useMutation({
    mutationFn: () =>
      ask(
        api.POST("/api/scenes/{scene_id}/variants", {
          params: { path: { scene_id: work.id } },
          body: { name: "as it happened", document: happened },
        }),
      ),
    onSuccess: () => go(`/scenes/${work.id}/plans`),
  });
  return (
    <>
      <Pill
        loading={keep.isPending}
        onClick={() => {
          keep.mutate();
        }}
      >
        lay it beside the plan
      </Pill>
      <Problem>{keep.error?.message}</Problem>
    </>
  );
}

type Row = readonly [word: string, meant: string, was: string];

function OnePour({
  meant,
  was,
  units,
}: {
  meant: PourOutcome;
  was: PourOutcome;
  units: Parameters<typeof weighedText>[1];
}) {
  const rows: Row[] = [
    ["begins", whenText(meant.clock.starts_at), whenText(was.clock.starts_at)],
    ["part B to 100 of A", ratio(meant), ratio(was)],
    ["hottest", peak(meant, units), peak(was, units)],
    ["tack opens", whenText(meant.clock.tack_opens_at), whenText(was.clock.tack_opens_at)],
    ["hard after", hoursText(meant.heat.cure?.hard_h), hoursText(was.heat.cure?.hard_h)],
  ];
  return (
    <Box marginTop="3">
      <Box fontWeight={800}>Pour {was.number}</Box>
      <Box as="table" width="100%" fontSize="14px" style={{ borderCollapse: "collapse" }}>
        <tbody>
          {rows.map(([word, planned, happened]) => (
            <tr key={word} style={{ borderBottom: "1px solid var(--wash)" }}>
              <Box as="th" textAlign="left" fontWeight={400} color="soft" paddingY="2px">
                {word}
              </Box>
              <td style={{ textAlign: "right", padding: "2px 6px" }}>{planned}</td>
              <td style={{ textAlign: "right", fontWeight: planned === happened ? 400 : 800 }}>{happened}</td>
            </tr>
          ))}
        </tbody>
      </Box>
    </Box>
  );
}

const ratio = (pour: PourOutcome) => ((100 * pour.cup.mix.part_b_g) / pour.cup.mix.part_a_g).toFixed(1);

const peak = (pour: PourOutcome, units: Parameters<typeof weighedText>[1]) =>
  pour.heat.cure ? temperatureText(pour.heat.cure.peak_c, units) : "-";

/** What was not raised by the plan, and is now. */
function NewFlags({ planned, happened }: { planned: Outcome; happened: Outcome }) {
  const known = new Set(planned.flags.map((flag) => `${flag.code}${flag.pour_number ?? ""}${flag.figure_id ?? ""}`));
  const fresh = happened.flags.filter(
    (flag) => flag.severity !== "note" && !known.has(`${flag.code}${flag.pour_number ?? ""}${flag.figure_id ?? ""}`),
  );
  return (
    <Box marginTop="3">
      <Box fontWeight={800}>What that raises</Box>
      {fresh.length === 0 ? <Box>Nothing that the plan did not raise already.</Box> : null}
      {fresh.map((flag) => (
        <Box
          key={`${flag.code}${flag.pour_number ?? ""}`}
          borderLeft="4px solid"
          borderColor={flag.severity === "stop" ? "caution" : "watch"}
          paddingLeft="8px"
          marginTop="4px"
        >
          <Box fontWeight={700}>
            {flag.severity}: {flag.title}
          </Box>
          {flag.sentence}
        </Box>
      ))}
    </Box>
  );
}
