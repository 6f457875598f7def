import { useDocument } from "../../desk/document";
import { ask } from "../../api/ask";
import { Box, Flex } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";

import { api } from "../../api/client";
import { saveBlob } from "../../api/download";
import type { NestedSheet, Scene } from "../../api/types";
import { Pill } from "../../ui/pill";
import { Choice, Tick } from "../../ui/row";
import { lengthFigure, lengthText } from "../../units/display";
import { LengthField } from "../../desk/fields";
import { Problem } from "../../ui/problem";

/** What to cut for the dam, laid out on stock sheets; as SVG, DXF, and on paper. */
export function CutSheet() {
  const { scene, outcome, units, keep } = useDocument();
  const { cuts } = outcome.dam;
  const cutting = scene.tank.cutting ?? {
    kerf_mm: 2,
    film_mm: 0,
    corner: "front_over_sides" as const,
    base_between: false,
    sheet_mm: [600, 400],
  };
  const [problem, setProblem] = useState<string | null>(null);
  const sheets = useQuery({
    queryKey: ["sheets", scene.tank],
    staleTime: Infinity,
    retry: false,
    queryFn: () => ask(api.POST("/api/cut-list/sheets", { body: scene })),
  });
  const keepCut = (change: Partial<NonNullable<Scene["tank"]["cutting"]>>) => {
    keep({ ...scene, tank: { ...scene.tank, cutting: { ...cutting, ...change } } }, "cutting");
  };
  const fetchFile = async (kind: "svg" | "dxf") => {
    try {
      const data: unknown = await ask(api.POST(`/api/cut-list/${kind}`, { body: scene, parseAs: "blob" }));
      saveBlob(data as Blob, `cut-list.${kind}`);
    } catch (flaw) {
      setProblem(flaw instanceof Error ? flaw.message : "The server cannot be reached.");
    }
  };
  const side = cutting.sheet_mm ?? [600, 400];
  return (
    <Box as="section" aria-label="Cut list" overflowY="auto" padding="14px 24px">
      <Box fontSize="20px" fontWeight={800}>
        Cut list{" "}
        <Box as="span" color="soft" fontSize="15px" fontStyle="italic" fontWeight={400}>
          outside {lengthText(cuts.outer_width_mm, units, 1)} x {lengthText(cuts.outer_behind_mm, units, 1)}; one strip
          of {lengthText(cuts.strip_mm, units, 1)} cuts all walls
        </Box>
      </Box>
      <Box color="soft">{cuts.words}</Box>
      <Box
        asChild
        width="100%"
        maxWidth="640px"
        marginTop="2"
        fontSize="15px"
        css={{
          "& th": { textAlign: "left", fontWeight: 400, color: "var(--soft)" },
          "& td, & th": { borderBottom: "1px solid var(--wash)", padding: "3px 8px 3px 0" },
        }}
      >
        <table>
          <thead>
            <tr>
              <th>panel</th>
              <th>how many</th>
              <th>width</th>
              <th>height</th>
              <th>bevels</th>
              <th>from</th>
            </tr>
          </thead>
          <tbody>
            {cuts.panels.map((panel) => (
              <tr key={panel.name}>
                <td>
                  <b>{panel.name}</b>
                </td>
                <td>{panel.count}</td>
                <td>{lengthText(panel.width_mm, units, 2)}</td>
                <td>{lengthText(panel.height_mm, units, 2)}</td>
                <td>
                  {panel.bevel_left_deg || panel.bevel_right_deg
                    ? `${panel.bevel_left_deg}° / ${panel.bevel_right_deg}°`
                    : "square"}
                </td>
                <td>{panel.from_sheet === "wall" ? scene.tank.wall.material.name : scene.tank.base.material.name}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </Box>
      <Flex gap="6" wrap="wrap" marginTop="3" className="screen-only">
        <Box width="230px">
          <LengthField
            label="saw cut"
            value={cutting.kerf_mm ?? 2}
            take={(kerf_mm) => {
              keepCut({ kerf_mm });
            }}
          />
          <LengthField
            label="film inside"
            value={cutting.film_mm ?? 0}
            take={(film_mm) => {
              keepCut({ film_mm });
            }}
          />
          <Tick
            label="base between the walls"
            value={cutting.base_between ?? false}
            take={(base_between) => {
              keepCut({ base_between });
            }}
          />
        </Box>
        <Box width="270px">
          <Choice
            label="corners"
            value={cutting.corner ?? "front_over_sides"}
            options={[
              ["front_over_sides", "front over sides"],
              ["pinwheel", "pinwheel"],
            ]}
            take={(corner) => {
              keepCut({ corner: corner as "pinwheel" });
            }}
          />
          <LengthField
            label="stock sheet, long"
            value={side[0] ?? 600}
            take={(v) => {
              keepCut({ sheet_mm: [v, side[1] ?? 400] });
            }}
          />
          <LengthField
            label="stock sheet, short"
            value={side[1] ?? 400}
            take={(v) => {
              keepCut({ sheet_mm: [side[0] ?? 600, v] });
            }}
          />
        </Box>
        <Flex gap="2" align="flex-start">
          <Pill onClick={() => void fetchFile("svg")}>SVG</Pill>
          <Pill onClick={() => void fetchFile("dxf")}>DXF</Pill>
          <Pill
            onClick={() => {
              window.print();
            }}
          >
            on paper
          </Pill>
        </Flex>
      </Flex>
      <Problem marginTop="2">{sheets.error?.message ?? problem}</Problem>
      <Flex gap="5" wrap="wrap" marginTop="3">
        {sheets.data?.map((sheet) => (
          <Stock key={`${sheet.from_sheet}-${sheet.number}`} sheet={sheet} />
        ))}
      </Flex>
      <Box fontSize="14px" color="soft" marginTop="2">
        Measure the sheet itself (thickness may be off by a tenth); measure the base from the built dam.
      </Box>
    </Box>
  );
}

function Stock({ sheet }: { sheet: NestedSheet }) {
  const { units } = useDocument();
  const scale = 344 / sheet.width_mm;
  return (
    <Box>
      <Box fontSize="14px" color="soft">
        {sheet.from_sheet} sheet {sheet.number}, {Math.round(sheet.used_fraction * 100)} % used
      </Box>
      <svg
        width={sheet.width_mm * scale}
        height={sheet.height_mm * scale}
        role="img"
        aria-label={`${sheet.laid.length} panels on ${sheet.from_sheet} sheet ${sheet.number}`}
      >
        <rect width={sheet.width_mm * scale} height={sheet.height_mm * scale} fill="var(--plot)" stroke="var(--hair)" />
        {sheet.laid.map((one, index) => (
          <g
            key={index}
            transform={`translate(${one.x_mm * scale} ${(sheet.height_mm - one.y_mm - one.height_mm) * scale})`}
          >
            <rect width={one.width_mm * scale} height={one.height_mm * scale} fill="var(--wash)" stroke="var(--ink)" />
            <g
              transform={one.width_mm < one.height_mm ? `translate(0 ${one.height_mm * scale}) rotate(-90)` : undefined}
            >
              <text x={5} y={15} fontSize={13} fill="var(--ink)">
                {one.name}
              </text>
              <text x={5} y={29} fontSize={13} fontStyle="italic" fill="var(--depth)">
                {lengthFigure(Math.max(one.width_mm, one.height_mm), units)} x{" "}
                {lengthFigure(Math.min(one.width_mm, one.height_mm), units)}
              </text>
            </g>
          </g>
        ))}
      </svg>
    </Box>
  );
}
