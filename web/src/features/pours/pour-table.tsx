import { Box } from "@chakra-ui/react";

import { useChoice } from "../../desk/choice";
import { useDocument } from "../../desk/document";
import { lengthText, massText, temperatureText, whenText } from "../../units/display";

/** All pours in a line each, the uppermost first as in the section; a press chooses one. */
export function PourTable() {
  const { outcome, units } = useDocument();
  const { pourNumber, choosePour } = useChoice();
  const words = ["pour", "begins", "deep", "mix", "peak", "joint below"];
  return (
    <Box asChild width="100%" fontSize="14px" lineHeight="1.25">
      <table aria-label="All pours">
        <thead>
          <tr>
            {words.map((word, at) => (
              <Box
                asChild
                key={word}
                textAlign={at > 1 && at < 5 ? "right" : "left"}
                color="soft"
                fontWeight={400}
                paddingRight="10px"
              >
                <th scope="col">{word}</th>
              </Box>
            ))}
          </tr>
        </thead>
        <tbody>
          {[...outcome.pours].reverse().map((pour) => {
            const cells = [
              lengthText(pour.fill.depth_mm, units),
              massText(pour.cup.mix.mix_g, units),
              pour.heat.cure ? temperatureText(pour.heat.cure.peak_c, units) : "",
            ];
            return (
              <Box
                asChild
                key={pour.id}
                borderTop="1px solid"
                borderColor="wash"
                fontWeight={pour.number === pourNumber ? 800 : 400}
                css={{ "& td": { paddingBlock: "3px", paddingRight: "10px", verticalAlign: "baseline" } }}
              >
                <tr>
                  <td>
                    <button
                      type="button"
                      style={{ cursor: "pointer", minWidth: 28, textAlign: "left" }}
                      aria-label={`Choose pour ${pour.number}`}
                      aria-pressed={pour.number === pourNumber}
                      onClick={() => {
                        choosePour(pour.number);
                      }}
                    >
                      {pour.number}
                    </button>
                  </td>
                  <Box asChild whiteSpace="nowrap">
                    <td>{whenText(pour.clock.starts_at)}</td>
                  </Box>
                  {cells.map((cell, at) => (
                    <Box asChild key={at} textAlign="right" whiteSpace="nowrap">
                      <td>{cell}</td>
                    </Box>
                  ))}
                  <td>{pour.joint.words}</td>
                </tr>
              </Box>
            );
          })}
        </tbody>
      </table>
    </Box>
  );
}
