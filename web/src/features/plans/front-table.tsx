import { Box } from "@chakra-ui/react";

import type { Front } from "../../api/types";
import { Pill } from "../../ui/pill";
import { heavyText } from "../../units/display";
import { useUnits } from "../../desk/units";

type Plan = Front["plans"][number];
const LIKELY = 0.15;

/** Plans on the front: a row each, the chosen one marked; a row lays its plan beside the own one. */
export function FrontTable({
  front,
  chosen,
  choose,
}: {
  front: Front;
  chosen: string | null;
  choose: (plan: Plan) => void;
}) {
  const units = useUnits();
  const worst = Math.max(...front.plans.map((one) => one.clarity_de00), 1);
  const cost = (plan: Plan) => (front.cost_is === "mass" ? heavyText(plan.cost, units) : plan.cost.toFixed(2));
  return (
    <Box asChild width="100%" css={{ "& td, & th": { padding: "3px 6px", textAlign: "right" } }}>
      <table aria-label="Plans on the front">
        <thead>
          <Box asChild color="soft" fontSize="14px">
            <tr>
              <th />
              <Heading>days</Heading>
              <Heading>sessions</Heading>
              <Heading>a stop, in 100</Heading>
              <Heading>bubbles, lines</Heading>
              <Heading>{front.cost_is === "mass" ? "resin" : "cost"}</Heading>
            </tr>
          </Box>
        </thead>
        <tbody>
          {front.plans.map((plan, at) => (
            <Box asChild key={`${plan.key}${at}`} bg={plan.name === chosen ? "wash" : undefined}>
              <tr aria-current={plan.name === chosen ? "true" : undefined}>
                <Box asChild textAlign="left!" fontWeight={plan.name === chosen ? 800 : 400}>
                  <th scope="row">
                    {plan.remedy ? (
                      <Pill
                        tone={plan.clear ? "depth" : "caution"}
                        aria-pressed={plan.name === chosen}
                        onClick={() => {
                          choose(plan);
                        }}
                      >
                        {plan.name}
                      </Pill>
                    ) : (
                      plan.name
                    )}
                  </th>
                </Box>
                <td>{plan.days_d === null ? "never" : plan.days_d.toFixed(1)}</td>
                <td>{plan.sessions_count}</td>
                <Box asChild fontWeight={700} color={inkOf(plan)}>
                  <td>{Math.round(100 * plan.stop_fraction)}</td>
                </Box>
                <td>
                  <Box
                    height="9px"
                    marginLeft="auto"
                    bg={plan.clear ? "depth" : "transparent"}
                    border="1px solid"
                    borderColor="depth"
                    role="img"
                    aria-label={`disturbed by dE ${plan.clarity_de00.toFixed(1)}`}
                    title={`bubbles and lines disturb the view by dE ${plan.clarity_de00.toFixed(1)}`}
                    style={{ width: `${8 + (52 * plan.clarity_de00) / worst}px` }}
                  />
                </td>
                <td>{cost(plan)}</td>
              </tr>
            </Box>
          ))}
        </tbody>
      </table>
    </Box>
  );
}

function inkOf(plan: Plan) {
  if (plan.stop_fraction >= 0.5) return "caution";
  return plan.stop_fraction >= LIKELY ? "watch" : "ink";
}

function Heading({ children }: { children: string }) {
  return (
    <Box asChild fontWeight={400} whiteSpace="nowrap">
      <th scope="col">{children}</th>
    </Box>
  );
}
