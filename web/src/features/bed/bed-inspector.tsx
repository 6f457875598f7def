import { useDocument } from "../../desk/document";
import { Box, Flex } from "@chakra-ui/react";
import { useEffect, useState } from "react";

import { ask } from "../../api/ask";
import { api } from "../../api/client";
import type { Scene, Units } from "../../api/types";
import { Parts } from "../../ui/parts";
import { Word } from "../../ui/pill";
import { Choice, Row, Tick, Title } from "../../ui/row";
import { Caution } from "../../ui/caution";
import { Colour } from "../../ui/colour";
import { Sources } from "../../ui/sources";
import { areaText, lengthText, massText, volumeText } from "../../units/display";
import { HoursField, LengthField, NumberField } from "../../desk/fields";
import { optionsOf, solidsFor, useShelf } from "../../desk/shelf";

import { HANDS, type Tool } from "./hands";
import { useMeasure } from "./measure";
import { useBedTools } from "./tools";
import { Problem } from "../../ui/problem";
import { BringFile } from "../../ui/bring-file";

const KEYS: Record<string, Tool> = {
  b: "build up",
  c: "carve off",
  r: "rub smooth",
  a: "ramp",
  s: "step",
  t: "press a stone in",
  g: "scatter gravel",
  w: "cut with a wire",
  d: "type depths",
};
/** What the second measure of a hand is called, where it is not "each stroke". */
const EACH: Partial<Record<Tool, string>> = {
  step: "steps of",
  "press a stone in": "stands out by",
  "scatter gravel": "grains up to",
};
const STARTERS = ["slope", "bowl", "ledge", "channel", "cave", "reef"] as const;
const SEALS = [
  ["resin", "thin coat of resin"],
  ["gloss_medium", "gloss medium"],
  ["white_glue", "diluted white glue"],
] as const;

export function BedInspector() {
  const { scene, keep, outcome, units } = useDocument();
  const shelf = useShelf();
  const { bed } = scene;
  const keepBed = (change: Partial<Scene["bed"]>, note: string) => {
    keep({ ...scene, bed: { ...bed, ...change } }, note);
  };
  const { filling, whole } = outcome;
  return (
    <Parts
      label="the bed"
      parts={[
        {
          word: "hands",
          part: (
            <>
              <Hands />
              <Measured />
            </>
          ),
        },
        { word: "forms", part: <Starting /> },
        {
          word: "made of",
          part: (
            <>
              <Choice
                label="made of"
                value={bed.material.id}
                options={optionsOf(solidsFor(shelf, "bed"), bed.material)}
                take={(id) => {
                  const material = shelf?.solids.find((one) => one.id === id);
                  if (material) keepBed({ material }, "bed");
                }}
              />
              <Tick
                label="sealed"
                value={bed.sealed ?? false}
                take={(sealed) => {
                  keepBed({ sealed }, sealed ? "bed sealed" : "bed not sealed");
                }}
              />
              {bed.sealed ? (
                <>
                  <Choice
                    label="with"
                    value={bed.sealed_with ?? "resin"}
                    options={SEALS}
                    take={(value) => {
                      keepBed({ sealed_with: value as "resin" }, "seal coat");
                    }}
                  />
                  <HoursField
                    label="then wait"
                    value={bed.seal_wait_h ?? 24}
                    take={(seal_wait_h) => {
                      keepBed({ seal_wait_h }, "seal coat");
                    }}
                  />
                </>
              ) : null}
              <Colour
                label="colour"
                value={bed.paint_srgb ?? "#8a7a5a"}
                take={(paint_srgb) => {
                  keepBed({ paint_srgb }, "bed colour");
                }}
              />
              <Caution>Cutting foam with hot wire and sanding make fumes and dust: respirator, open window.</Caution>
            </>
          ),
        },
        {
          word: "facts",
          part: (
            <>
              <Box as="dl" margin="0">
                <Row label="water above it" known="volume">
                  {volumeText(whole.free_volume_ml, units)}
                </Row>
                <Row label="bed itself">{volumeText(filling.bed_ml, units)}</Row>
                <Row label="area to seal">{areaText(whole.bed_area_cm2, units)}</Row>
                <Row label="seal coat" hint="a thin coat of resin brushed on (assumed)">
                  {massText(filling.seal_coat_g, units)}
                </Row>
                <Row label="highest point">{lengthText(whole.bed_top_depth_mm, units)} deep</Row>
                <Row label="steepest">{Math.round(filling.steepest_deg)}°</Row>
                <Row label="air kept under it">
                  {air(
                    filling.traps.filter((one) => one.figure_id === null).reduce((sum, one) => sum + one.volume_ml, 0),
                    units,
                  )}
                </Row>
                <Row label="pores">{Math.round(bed.material.porosity_fraction * 100)} %</Row>
                <Row
                  label="gas out of it"
                  known="gas"
                  hint={
                    bed.sealed
                      ? "as it warms under liquid resin; the seal keeps most of it in (assumed)"
                      : "as it warms under liquid resin, by its own temperature in the march"
                  }
                >
                  {volumeText(filling.gas_ml, units, 1)}
                </Row>
              </Box>
              <Growth />
              <Sources>
                {[
                  ["water", "fine columns, exact in height; the mesh of a cave keeps its roof"],
                  ["measured", "the smoothest surface through the depths (thin-plate spline)"],
                  ["gas", "ideal gas in the pores at constant pressure, by the bed's own temperature in the march"],
                ]}
              </Sources>
            </>
          ),
        },
      ]}
    />
  );
}

const air = (ml: number, units: Units) => (ml < 0.05 ? "none" : volumeText(ml, units, 1));

function Hands() {
  const tools = useBedTools();
  const { take } = tools;
  useEffect(() => {
    const press = (event: KeyboardEvent) => {
      if (
        event.ctrlKey ||
        event.metaKey ||
        event.altKey ||
        event.target instanceof HTMLInputElement ||
        event.target instanceof HTMLSelectElement
      )
        return;
      const tool = KEYS[event.key.toLowerCase()];
      if (tool) take({ tool });
    };
    window.addEventListener("keydown", press);
    return () => {
      window.removeEventListener("keydown", press);
    };
  }, [take]);
  return (
    <Box role="radiogroup" aria-label="Hands on the bed">
      <Title>Hands on the bed</Title>
      {[...HANDS, "type depths" as const].map((tool) => (
        <Flex
          asChild
          key={tool}
          justify="space-between"
          width="100%"
          minHeight="25px"
          paddingY="2px"
          paddingX="8px"
          borderLeft="4px solid"
          borderColor={tools.tool === tool ? "ink" : "transparent"}
          bg={tools.tool === tool ? "wash" : "transparent"}
          fontWeight={tools.tool === tool ? 800 : 400}
          cursor="pointer"
        >
          <button
            type="button"
            role="radio"
            aria-checked={tools.tool === tool}
            onClick={() => {
              take({ tool });
            }}
          >
            {tool}
            <Box as="span" color="soft" fontStyle="italic" fontWeight={400} aria-hidden="true">
              {Object.entries(KEYS)
                .find(([, one]) => one === tool)?.[0]
                .toUpperCase()}
            </Box>
          </button>
        </Flex>
      ))}
      {tools.tool === "type depths" ? null : (
        <>
          <LengthField
            label="as wide as"
            value={tools.wide_mm}
            take={(wide_mm) => {
              take({ wide_mm: Math.min(200, Math.max(4, wide_mm)) });
            }}
          />
          {tools.tool === "ramp" || tools.tool === "cut with a wire" || tools.tool === "rub smooth" ? null : (
            <LengthField
              label={EACH[tools.tool] ?? "each stroke"}
              value={tools.each_mm}
              take={(each_mm) => {
                take({ each_mm: Math.min(40, Math.max(0.2, each_mm)) });
              }}
            />
          )}
        </>
      )}
    </Box>
  );
}

function Measured() {
  const { scene } = useDocument();
  const tools = useBedTools();
  const { measured, set, problem } = useMeasure();
  if (tools.tool !== "type depths" && measured.length === 0) return null;
  const change = (index: number, one: Partial<(typeof measured)[number]>) => {
    void set(measured.map((point, at) => (at === index ? { ...point, ...one } : point)));
  };
  return (
    <Box role="group" aria-label="Measured depths" marginTop="2">
      <Box fontSize="14px" color="soft">
        Press the chart where the skewer stood, then type how deep.
      </Box>
      {measured.map((point, index) => (
        <Box key={index} borderLeft="2px solid" borderColor="caution" paddingLeft="2" marginTop="1">
          <LengthField
            label={`depth ${index + 1}`}
            value={point.depth_mm}
            take={(depth_mm) => {
              change(index, { depth_mm });
            }}
          />
          <Flex justify="space-between" fontSize="14px" color="soft">
            <span>
              {point.x_mm} from the left, {point.behind_mm} behind
            </span>
            <Word
              fontSize="14px"
              aria-label={`Take depth ${index + 1} out`}
              onClick={() => {
                void set(measured.filter((_, at) => at !== index));
              }}
            >
              out
            </Word>
          </Flex>
        </Box>
      ))}
      <Word
        onClick={() => {
          void set([
            ...measured,
            {
              x_mm: scene.tank.inner_width_mm / 2,
              behind_mm: scene.tank.inner_behind_mm / 2,
              depth_mm: scene.tank.fill_height_mm / 2,
            },
          ]);
        }}
      >
        add a depth in the middle
      </Word>
      <Problem fontSize="14px">{problem}</Problem>
    </Box>
  );
}

function Starting() {
  const { scene, keep, work, units } = useDocument();
  const [problem, setProblem] = useState<string | null>(null);
  const [said, setSaid] = useState<string | null>(null);
  const [high, setHigh] = useState(Math.round(scene.tank.fill_height_mm * 0.7));
  const refuse = (flaw: unknown) => {
    setProblem(flaw instanceof Error ? flaw.message : "The server cannot be reached.");
  };
  const start = async (kind: string) => {
    const data = await ask(api.POST("/api/beds/start", { body: { kind, tank: scene.tank } }));
    keep({ ...scene, bed: { ...scene.bed, heights_mm: data.heights_mm, measured: [], mesh: null } }, `bed: ${kind}`);
  };
  const bring = async (file: File) => {
    setProblem(null);
    setSaid(null);
    const kind = file.name.split(".").pop()?.toLowerCase() ?? "";
    const body = file as unknown as string;
    const sent = { bodySerializer: () => file, headers: { "Content-Type": "application/octet-stream" } };
    if (["stl", "obj", "glb", "ply"].includes(kind)) {
      const data = await ask(api.POST("/api/meshes", { params: { query: { kind, name: file.name } }, body, ...sent }));
      const { inner_width_mm, inner_behind_mm } = scene.tank;
      const fit = Math.min(1, inner_width_mm / (data.size_mm[0] ?? 1), inner_behind_mm / (data.size_mm[1] ?? 1));
      const mesh = {
        kind: "mesh" as const,
        mesh_id: data.mesh_id,
        spread_ml: data.spread_ml,
        scale_ratio: Math.max(0.001, Math.round(fit * 10000) / 10000),
        offset_mm: [inner_width_mm / 2, inner_behind_mm / 2, 0],
      };
      setSaid(
        [
          `${data.triangles_count.toLocaleString("en")} triangles, ${volumeText(data.volume_ml, units, 1)}${fit < 1 ? `, made smaller to ${Math.round(fit * 100)} % to fit` : ""}.`,
          ...data.words,
        ].join(" "),
      );
      keep(
        {
          ...scene,
          bed: { ...scene.bed, heights_mm: scene.bed.heights_mm.map((row) => row.map(() => 0)), measured: [], mesh },
        },
        "bed mesh",
      );
      return;
    }
    const data = await ask(
      api.POST("/api/scenes/{scene_id}/bed-map", {
        params: { path: { scene_id: work.id }, query: { name: file.name, low_mm: 0, high_mm: high } },
        body,
        ...sent,
      }),
    );
    keep(
      { ...scene, bed: { ...scene.bed, heights_mm: data.heights_mm, measured: [], mesh: null } },
      `bed from ${file.name}`.slice(0, 100),
    );
  };
  return (
    <Box marginTop="3">
      <Title>Start from</Title>
      <Flex wrap="wrap" columnGap="3">
        {STARTERS.map((kind) => (
          <Word
            key={kind}
            textDecoration="underline"
            onClick={() => {
              start(kind).catch(refuse);
            }}
          >
            {kind}
          </Word>
        ))}
      </Flex>
      <BringFile
        label="Mesh or height map of the bed"
        accept=".stl,.obj,.glb,.ply,.png,.csv"
        take={(file) => {
          bring(file).catch(refuse);
        }}
      >
        bring a mesh or height map
      </BringFile>
      <NumberField label="white of a map stands" unit="mm" value={high} take={setHigh} />
      {scene.bed.mesh ? (
        <Word
          onClick={() => {
            keep({ ...scene, bed: { ...scene.bed, mesh: null } }, "bed without mesh");
          }}
        >
          take the bed's mesh out
        </Word>
      ) : null}
      {said ? (
        <Box role="status" fontSize="14px">
          {said}
        </Box>
      ) : null}
      {problem ? <Problem fontSize="14px">{problem} Nothing was changed.</Problem> : null}
    </Box>
  );
}

/** How the water grows with height; the layer lines as ticks. */
function Growth() {
  const { outcome, scene, units } = useDocument();
  const { height_mm, resin_ml } = outcome.filling;
  const [width, height] = [224, 92];
  const most = resin_ml.at(-1) ?? 1;
  const fill = scene.tank.fill_height_mm;
  const line = height_mm
    .map((mm, index) => `${((resin_ml[index] ?? 0) / (most || 1)) * width} ${height - (mm / fill) * height}`)
    .join("L");
  return (
    <Box marginY="2">
      <Box fontSize="14px" fontWeight={700}>
        How the water grows with height
      </Box>
      <svg
        width={width}
        height={height + 16}
        role="img"
        aria-label={`Resin by height: ${volumeText(most, units)} at the fill line`}
      >
        <rect width={width} height={height} fill="var(--plot)" stroke="var(--hair)" />
        {scene.pours.slice(0, -1).map((pour) => (
          <path
            key={pour.id}
            d={`M0 ${(pour.top_depth_mm / fill) * height}H${width}`}
            stroke="var(--hair)"
            strokeDasharray="3 3"
          />
        ))}
        <path d={`M${line}`} fill="none" stroke="var(--ink)" strokeWidth={1.8} />
        <text x={width} y={height + 14} textAnchor="end" fontSize={13} fill="var(--soft)">
          {volumeText(most, units)}
        </text>
        <text x={0} y={height + 14} fontSize={13} fill="var(--soft)">
          0
        </text>
      </svg>
    </Box>
  );
}
