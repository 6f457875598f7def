import { useDocument } from "../../desk/document";
import { ask } from "../../api/ask";
import { Box } from "@chakra-ui/react";
import { useMutation } from "@tanstack/react-query";

import { api } from "../../api/client";
import type { School } from "../../api/types";
import { Pill } from "../../ui/pill";
import { temperatureText } from "../../units/display";
import { Problem } from "../../ui/problem";

/** Both schools of suspension side by side, for this scene. */
export function Schools() {
  const { scene, units } = useDocument();
  const asking = useMutation({
    mutationFn: async () => {
      return { data: await ask(api.POST("/api/schools", { body: scene })), of: scene };
    },
  });
  const rows: [string, (one: School) => string][] = [
    ["pours", (one) => String(one.pours_count)],
    [
      "hottest",
      (one) => (one.hottest_c === null ? "-" : one.runs_away ? "runs away" : temperatureText(one.hottest_c, units)),
    ],
    ["dam off", (one) => (one.days_d === null ? "-" : `${one.days_d} d`)],
    ["lines that may show", (one) => String(one.seams_count)],
    ["figures on supports", (one) => `${one.held_count}${one.unheld_count ? `, ${one.unheld_count} not held` : ""}`],
    ["stops", (one) => (one.stops.length ? one.stops.slice(0, 2).join("; ") : "none")],
  ];
  const [staged, held] = asking.data?.data ?? [];
  const old = asking.data && asking.data.of !== scene;
  return (
    <Box marginTop="4">
      <Pill
        onClick={() => {
          asking.mutate();
        }}
        loading={asking.isPending}
      >
        staged or held? both, side by side
      </Pill>
      <Problem>{asking.error?.message}</Problem>
      {staged && held ? (
        <Box
          asChild
          width="100%"
          fontSize="14px"
          marginTop="2"
          color={old ? "soft" : "ink"}
          css={{
            "& td, & th": {
              borderBottom: "1px solid var(--wash)",
              padding: "2px 4px",
              verticalAlign: "top",
              textAlign: "left",
            },
          }}
        >
          <table>
            <thead>
              <tr>
                <th>{old ? "before your change" : ""}</th>
                <th>staged</th>
                <th>held, one pour</th>
              </tr>
            </thead>
            <tbody>
              {rows.map(([word, value]) => (
                <tr key={word}>
                  <th scope="row">{word}</th>
                  <td>{value(staged)}</td>
                  <td>{value(held)}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </Box>
      ) : null}
    </Box>
  );
}
