import { Box } from "@chakra-ui/react";

import { useChoice } from "../../desk/choice";
import { useDocument } from "../../desk/document";
import { nearest } from "../../sounding/scales";

/** The drops of every pour beside the colour that its middle shows on the back wall, the uppermost first. */
export function DoseTable() {
  const { scene, outcome } = useDocument();
  const { pourNumber, choosePour } = useChoice();
  const inks = (scene.colourants ?? []).filter((ink) =>
    scene.pours.some((pour) =>
      pour.doses?.some((dose) => dose.colourant_id === ink.id && dose.dose_drops_per_100g > 0),
    ),
  );
  const colourAt = (depth_mm: number) =>
    outcome.water.backdrop_srgb[nearest(outcome.water.depth_mm, depth_mm)] ?? "transparent";
  return (
    <Box asChild width="100%" fontSize="14px" lineHeight="1.25">
      <table aria-label="Drops per 100 g in every pour">
        <thead>
          <tr>
            <Box asChild textAlign="left" color="soft" fontWeight={400}>
              <th scope="col">pour</th>
            </Box>
            {inks.map((ink) => (
              <Box asChild key={ink.id} textAlign="right" color="soft" fontWeight={400} paddingLeft="8px">
                <th scope="col">{ink.name}</th>
              </Box>
            ))}
          </tr>
        </thead>
        <tbody>
          {[...outcome.pours].reverse().map((pour) => (
            <Box
              asChild
              key={pour.id}
              borderTop="1px solid"
              borderColor="wash"
              fontWeight={pour.number === pourNumber ? 800 : 400}
            >
              <tr>
                <Box asChild paddingY="3px">
                  <td>
                    <button
                      type="button"
                      style={{ cursor: "pointer" }}
                      aria-label={`Choose pour ${pour.number}`}
                      aria-pressed={pour.number === pourNumber}
                      onClick={() => {
                        choosePour(pour.number);
                      }}
                    >
                      <svg width="18" height="13" aria-hidden="true" style={{ display: "inline", marginRight: 8 }}>
                        <rect
                          width="16"
                          height="12"
                          fill={colourAt((pour.top_depth_mm + pour.bottom_depth_mm) / 2)}
                          stroke="var(--hair)"
                        />
                      </svg>
                      {pour.number}
                    </button>
                  </td>
                </Box>
                {inks.map((ink) => (
                  <Box asChild key={ink.id} textAlign="right" paddingLeft="8px">
                    <td>
                      {scene.pours[pour.number - 1]?.doses?.find((dose) => dose.colourant_id === ink.id)
                        ?.dose_drops_per_100g ?? "–"}
                    </td>
                  </Box>
                ))}
              </tr>
            </Box>
          ))}
        </tbody>
      </table>
    </Box>
  );
}
