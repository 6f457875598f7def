import { useDocument } from "../../desk/document";
import { Box, Flex } from "@chakra-ui/react";
import { Fragment, useState } from "react";

import type { Scene, Tank, Units } from "../../api/types";
import { Caution } from "../../ui/caution";
import { Parts } from "../../ui/parts";
import { Word } from "../../ui/pill";
import { Choice, Row, Tick, Title } from "../../ui/row";
import { Sources } from "../../ui/sources";
import { heavyText, lengthText, massText, temperatureText, volumeText } from "../../units/display";
import { LengthField, NumberField, TemperatureField } from "../../desk/fields";
import { optionsOf, solidsFor, useShelf } from "../../desk/shelf";

import { BriefFields } from "./brief";
import { OwnMaterial } from "./own-material";
import { innerOf, shownSize, type SizeBy } from "./sizes";

const SHAPES = [
  ["box", "box"],
  ["chamfered", "box, corners cut"],
  ["rounded", "box, corners round"],
  ["round", "round or oval"],
  ["regular", "regular polygon"],
  ["free", "own corners"],
] as const;
const RELEASES = [
  ["none", "none"],
  ["wax", "wax"],
  ["petroleum_jelly", "petroleum jelly"],
  ["silicone_spray", "silicone spray"],
  ["tape", "packing tape"],
] as const;
const BY = [
  ["inside", "its inside"],
  ["outside", "its outside"],
  ["place", "the place it stands in"],
] as const;

export function TankInspector() {
  const { scene, keep, change, outcome, units } = useDocument();
  const shelf = useShelf();
  const [by, setBy] = useState<SizeBy>("inside");
  const { tank, brief } = scene;
  const solid = (id: string) => shelf?.solids.find((one) => one.id === id);
  const keepTank = (change: Partial<Tank>, note: string) => {
    keep({ ...scene, tank: { ...tank, ...change } }, note);
  };
  const keepRoom = (change: Partial<Scene["brief"]["room"]>) => {
    keep({ ...scene, brief: { ...brief, room: { ...brief.room, ...change } } }, "room");
  };
  const size = (mm: number) => innerOf(mm, by, tank);
  const resize = (across: number, behind: number) => {
    keepTank({ inner_width_mm: across, inner_behind_mm: behind, shape: fitted(tank, across, behind) }, "tank");
  };
  return (
    <>
      <Title>Tank</Title>
      <Parts
        label="the tank"
        parts={[
          {
            word: "size",
            part: (
              <>
                <Choice
                  label="shape"
                  value={tank.shape?.kind ?? "box"}
                  options={SHAPES}
                  take={(kind) => {
                    keepTank(shaped(tank, kind), `tank: ${kind}`);
                  }}
                />
                <ShapeFields />
                <Choice
                  label="size is of"
                  value={by}
                  options={BY}
                  take={(value) => {
                    setBy(value as SizeBy);
                  }}
                />
                <LengthField
                  label="across"
                  value={shownSize(tank.inner_width_mm, by, tank)}
                  take={(v) => {
                    resize(
                      size(v),
                      tank.shape?.kind === "regular"
                        ? regularDepth(size(v), tank.shape.sides_count)
                        : tank.inner_behind_mm,
                    );
                  }}
                />
                <LengthField
                  label="front to back"
                  value={shownSize(tank.inner_behind_mm, by, tank)}
                  take={(v) => {
                    resize(tank.inner_width_mm, size(v));
                  }}
                />
                <LengthField
                  label="fill line"
                  value={tank.fill_height_mm}
                  take={(v) => {
                    change({ kind: "fill_line", fill_mm: v });
                  }}
                />
                <LengthField
                  label="walls"
                  value={tank.wall_height_mm}
                  take={(v) => {
                    keepTank({ wall_height_mm: v }, "walls");
                  }}
                />
                <NumberField
                  label="walls lean out"
                  unit="°"
                  value={tank.taper_deg ?? 0}
                  take={(v) => {
                    keepTank({ taper_deg: v }, "lean");
                  }}
                />
                <NumberField
                  label="equal pieces"
                  value={brief.pieces_count ?? 1}
                  take={(v) => {
                    keep({ ...scene, brief: { ...brief, pieces_count: Math.max(1, Math.round(v)) } }, "pieces");
                  }}
                />
                <Box as="dl" margin="0">
                  <Row label="outside">
                    {lengthText(outcome.whole.outer_width_mm, units, 1)} x{" "}
                    {lengthText(outcome.whole.outer_behind_mm, units, 1)}
                  </Row>
                  <Row label="water above the bed" known="volume">
                    {volumeText(outcome.whole.free_volume_ml, units)}
                  </Row>
                  <Row label="weighs about" known="weighs">
                    {heavyText(outcome.whole.piece_kg, units)}
                  </Row>
                  <Row label="wall above the fill line">{lengthText(outcome.whole.headroom_mm, units, 1)}</Row>
                  {outcome.whole.pieces_count > 1 ? (
                    <Row label={`resin for ${outcome.whole.pieces_count}`}>
                      {massText(outcome.whole.all_pieces_mix_g, units)}
                    </Row>
                  ) : null}
                </Box>
              </>
            ),
          },
          {
            word: "dam",
            part: (
              <>
                <Choice
                  label="sheet"
                  value={tank.wall.material.id}
                  options={optionsOf(solidsFor(shelf, "wall"), tank.wall.material)}
                  take={(id) => {
                    const material = solid(id);
                    if (material) keepTank({ wall: { ...tank.wall, material } }, "sheet");
                  }}
                />
                <LengthField
                  label="sheet thickness"
                  value={tank.wall.thickness_mm}
                  take={(v) => {
                    keepTank({ wall: { ...tank.wall, thickness_mm: v } }, "sheet");
                  }}
                />
                <Tick
                  label="walls stay, a container"
                  value={tank.walls_stay ?? false}
                  take={(walls_stay) => {
                    keepTank({ walls_stay }, walls_stay ? "walls stay" : "walls come off");
                  }}
                />
                {tank.seal ? (
                  <Choice
                    label="seal"
                    value={tank.seal.material.id}
                    options={optionsOf(solidsFor(shelf, "seal"), tank.seal.material)}
                    take={(id) => {
                      const material = solid(id);
                      if (material) keepTank({ seal: { material } }, "seal");
                    }}
                  />
                ) : null}
                <Tick
                  label="joints are sealed"
                  value={tank.seal !== null && tank.seal !== undefined}
                  take={(sealed) => {
                    const material = solid("silicone");
                    keepTank({ seal: sealed && material ? { material } : null }, "seal");
                  }}
                />
                <Choice
                  label="release"
                  value={tank.release ?? "wax"}
                  options={RELEASES}
                  take={(release) => {
                    keepTank({ release: release as "wax" }, "release");
                  }}
                />
                <Choice
                  label="base"
                  value={tank.base.material.id}
                  options={optionsOf(solidsFor(shelf, "base"), tank.base.material)}
                  take={(id) => {
                    const material = solid(id);
                    if (material) keepTank({ base: { ...tank.base, material } }, "base");
                  }}
                />
                <LengthField
                  label="base thickness"
                  value={tank.base.thickness_mm}
                  take={(v) => {
                    keepTank({ base: { ...tank.base, thickness_mm: v } }, "base");
                  }}
                />
                <OwnMaterial
                  key={tank.wall.material.id}
                  material={tank.wall.material}
                  take={(material) => {
                    keepTank({ wall: { ...tank.wall, material } }, "sheet data");
                  }}
                />
                <Caution>
                  Sawing and sanding sheet: dust mask and eye protection. Hot glue and hot wire burn; air the room.
                </Caution>
              </>
            ),
          },
          {
            word: "under load",
            part: (
              <>
                <Loads />
                <NumberField
                  label="floor off level by"
                  unit="°"
                  value={tank.level_error_deg ?? 0.2}
                  take={(v) => {
                    keepTank({ level_error_deg: v }, "level");
                  }}
                />
                <Box as="dl" margin="0">
                  <Row label="costs at the edge">{lengthText(outcome.dam.level_error_mm, units, 1)}</Row>
                  <Row label="thinnest layer that covers" known="covers" hint="below it surface tension draws it back">
                    {lengthText(outcome.dam.self_covering_mm, units, 1)}
                  </Row>
                  <Row label="climbs the wall" known="climbs">
                    {lengthText(outcome.dam.lip_mm, units, 1)}, {volumeText(outcome.dam.climb_ml, units, 1)}
                  </Row>
                </Box>
                <Sources>
                  {[
                    [
                      "bulge",
                      "plate coefficients under liquid, from joints that hold firmly to ones that hinge; the sheet softened at its own temperature and crept for a day",
                    ],
                    ["ribs", `fewest stiff ribs between which a bay bulges under ${lengthText(0.5, units, 1)}`],
                    ["covers", "2 sqrt(gamma/(rho g)) sin(theta/2), on a spot of 45° contact angle"],
                    ["climb", "capillary rise at 20° contact angle; its resin is in the last pour"],
                  ]}
                </Sources>
              </>
            ),
          },
          { word: "brief", part: <BriefFields /> },
          {
            word: "room",
            part: (
              <>
                <TemperatureField
                  label="by day"
                  value={brief.room.day_c}
                  take={(v) => {
                    keepRoom({ day_c: v });
                  }}
                />
                <TemperatureField
                  label="by night"
                  value={brief.room.night_c}
                  take={(v) => {
                    keepRoom({ night_c: v });
                  }}
                />
                <NumberField
                  label="may be off by"
                  unit="K"
                  value={brief.room.spread_k ?? 2}
                  take={(v) => {
                    keepRoom({ spread_k: v });
                  }}
                />
              </>
            ),
          },
        ]}
      />
    </>
  );
}

/** Beyond half the sheet no number holds. */
function bulgeText(bulge_mm: number | null, units: Units): string {
  return bulge_mm === null ? "lets go or is braced" : lengthText(bulge_mm, units, 2);
}

function Loads() {
  const { outcome, units } = useDocument();
  const { dam } = outcome;
  return (
    <Box as="dl" margin="0">
      {dam.wall_peak_c === null ? null : <Row label="sheet gets">{temperatureText(dam.wall_peak_c, units)}</Row>}
      {dam.loads.map((load) => (
        <Fragment key={load.name}>
          <Row
            known="bulge"
            label={`${load.name} bulge`}
            hint={`under pour ${load.pour_number}, firm joints to soft ones`}
          >
            {bulgeText(load.bulge_low_mm, units)} to {bulgeText(load.bulge_high_mm, units)}
          </Row>
          <Row label="with a bar along the top">{bulgeText(load.braced_mm, units)}</Row>
          <Row label="needs at least" hint={`to bulge ${lengthText(0.5, units, 1)} at most, with firm joints`}>
            {lengthText(load.least_thickness_mm, units, 1)}
            {load.ribs_count ? `, or ${load.ribs_count} rib${load.ribs_count > 1 ? "s" : ""}` : ""}
          </Row>
          <Row label="stress, joint load">
            {load.stress_mpa.toFixed(1)} MPa, {load.joint_n_mm.toFixed(3)} N/mm
          </Row>
        </Fragment>
      ))}
      {dam.hoop_mpa === null ? null : (
        <Row label="round wall, hoop stress" hint="does not bend; the seam fails first">
          {dam.hoop_mpa.toFixed(2)} MPa
        </Row>
      )}
      {dam.loads.length === 0 && dam.hoop_mpa === null ? <Row label="bulge">stiffness not known</Row> : null}
    </Box>
  );
}

function ShapeFields() {
  const { scene, keep } = useDocument();
  const { tank } = scene;
  const shape = tank.shape ?? { kind: "box" as const };
  const keepShape = (next: NonNullable<Tank["shape"]>) => {
    keep({ ...scene, tank: { ...tank, shape: next } }, "shape of the tank");
  };
  if (shape.kind === "chamfered" || shape.kind === "rounded") {
    return (
      <LengthField
        label={shape.kind === "rounded" ? "corner radius" : "corner cut"}
        value={shape.corner_mm}
        take={(corner_mm) => {
          keepShape({ ...shape, corner_mm });
        }}
      />
    );
  }
  if (shape.kind === "regular") {
    return (
      <NumberField
        label="sides"
        value={shape.sides_count}
        take={(v) => {
          const count = Math.round(Math.min(12, Math.max(3, v)));
          keep(
            {
              ...scene,
              tank: {
                ...tank,
                shape: { kind: "regular", sides_count: count },
                inner_behind_mm: regularDepth(tank.inner_width_mm, count),
              },
            },
            "sides",
          );
        }}
      />
    );
  }
  if (shape.kind === "free") {
    return (
      <Box>
        {shape.points_mm.map((point, index) => (
          <Flex key={index} align="baseline" gap="2">
            <Box flex="1">
              <LengthField
                label={`corner ${index + 1}`}
                value={point[0] ?? 0}
                take={(x) => {
                  keepShape({
                    ...shape,
                    points_mm: shape.points_mm.map((one, at) => (at === index ? [x, one[1] ?? 0] : one)),
                  });
                }}
              />
            </Box>
            <Box flex="1">
              <LengthField
                label="behind"
                value={point[1] ?? 0}
                take={(y) => {
                  keepShape({
                    ...shape,
                    points_mm: shape.points_mm.map((one, at) => (at === index ? [one[0] ?? 0, y] : one)),
                  });
                }}
              />
            </Box>
            {shape.points_mm.length > 3 ? (
              <Word
                fontSize="14px"
                aria-label={`Take corner ${index + 1} out`}
                onClick={() => {
                  keepShape({ ...shape, points_mm: shape.points_mm.filter((_, at) => at !== index) });
                }}
              >
                out
              </Word>
            ) : null}
          </Flex>
        ))}
        <Word
          onClick={() => {
            keepShape({ ...shape, points_mm: withCorner(shape.points_mm) });
          }}
        >
          add a corner
        </Word>
      </Box>
    );
  }
  return null;
}

/** A new corner half way along the last side. */
function withCorner(points: number[][]): number[][] {
  const first = points[0] ?? [0, 0];
  const last = points.at(-1) ?? [0, 0];
  return [...points, [((first[0] ?? 0) + (last[0] ?? 0)) / 2, ((first[1] ?? 0) + (last[1] ?? 0)) / 2]];
}

function regularDepth(width: number, sides: number): number {
  const turns = Array.from({ length: sides }, (_, i) => -Math.PI / 2 - Math.PI / sides + (2 * Math.PI * i) / sides);
  const across = Math.max(...turns.map(Math.cos)) - Math.min(...turns.map(Math.cos));
  const away = Math.max(...turns.map(Math.sin)) - Math.min(...turns.map(Math.sin));
  return Math.round((width * away * 10) / across) / 10;
}

function shaped(tank: Tank, kind: string): Partial<Tank> {
  const { inner_width_mm: width, inner_behind_mm: behind } = tank;
  const corner_mm = Math.round(Math.min(width, behind) / 5);
  if (kind === "chamfered" || kind === "rounded") return { shape: { kind, corner_mm } };
  if (kind === "regular") return { shape: { kind, sides_count: 6 }, inner_behind_mm: regularDepth(width, 6) };
  if (kind === "round") return { shape: { kind } };
  if (kind === "free")
    return {
      shape: {
        kind,
        points_mm: [
          [0, 0],
          [width, 0],
          [width, behind],
          [0, behind],
        ],
      },
      taper_deg: 0,
    };
  return { shape: { kind: "box" } };
}

/** The shape kept within a new size. */
function fitted(tank: Tank, width: number, behind: number): NonNullable<Tank["shape"]> {
  const shape = tank.shape ?? { kind: "box" as const };
  if (shape.kind === "chamfered" || shape.kind === "rounded")
    return { ...shape, corner_mm: Math.min(shape.corner_mm, Math.min(width, behind) / 2) };
  if (shape.kind !== "free") return shape;
  return {
    ...shape,
    points_mm: shape.points_mm.map((point) => [
      ((point[0] ?? 0) * width) / tank.inner_width_mm,
      ((point[1] ?? 0) * behind) / tank.inner_behind_mm,
    ]),
  };
}
