import { Box } from "@chakra-ui/react";

import type { Scene } from "../../api/types";
import { Choice, Row, Tick, Title } from "../../ui/row";
import { lengthText, volumeText } from "../../units/display";
import { useDesk } from "../workspace";
import { LengthField, NumberField, TemperatureField } from "./fields";
import { optionsOf, useShelf } from "./shelf";

const WALLS = ["acrylic", "pvc-foam", "plywood", "polypropylene", "glass"];
const SEALS = ["hot-glue", "silicone", "wood-glue"];
const BASES = ["wood", "foam", "glass", "plywood"];

export function TankInspector() {
  const { scene, keep, outcome, units } = useDesk();
  const shelf = useShelf();
  const { tank, brief } = scene;
  const solids = (ids: string[]) => shelf?.solids.filter((solid) => ids.includes(solid.id));
  const solid = (id: string) => shelf?.solids.find((one) => one.id === id);
  const keepTank = (change: Partial<Scene["tank"]>, note: string) => { keep({ ...scene, tank: { ...tank, ...change } }, note); };
  const keepRoom = (change: Partial<Scene["brief"]["room"]>) => { keep({ ...scene, brief: { ...brief, room: { ...brief.room, ...change } } }, "room"); };
  return (
    <>
      <Title aside="inside">Tank</Title>
      <LengthField label="across" value={tank.inner_width_mm} take={(v) => { keepTank({ inner_width_mm: v }, "tank"); }} />
      <LengthField label="front to back" value={tank.inner_behind_mm} take={(v) => { keepTank({ inner_behind_mm: v }, "tank"); }} />
      <LengthField label="fill line" value={tank.fill_height_mm} take={(v) => { keepTank({ fill_height_mm: v }, "fill line"); }} />
      <LengthField label="walls" value={tank.wall_height_mm} take={(v) => { keepTank({ wall_height_mm: v }, "walls"); }} />
      <Choice label="sheet" value={tank.wall.material.id} options={optionsOf(solids(WALLS), tank.wall.material)} take={(id) => { const material = solid(id); if (material) keepTank({ wall: { ...tank.wall, material } }, "sheet"); }} />
      <LengthField label="sheet thickness" value={tank.wall.thickness_mm} take={(v) => { keepTank({ wall: { ...tank.wall, thickness_mm: v } }, "sheet"); }} />
      {tank.seal ? <Choice label="seal" value={tank.seal.material.id} options={optionsOf(solids(SEALS), tank.seal.material)} take={(id) => { const material = solid(id); if (material) keepTank({ seal: { material } }, "seal"); }} /> : null}
      <Choice label="base" value={tank.base.material.id} options={optionsOf(solids(BASES), tank.base.material)} take={(id) => { const material = solid(id); if (material) keepTank({ base: { ...tank.base, material } }, "base"); }} />
      <LengthField label="base thickness" value={tank.base.thickness_mm} take={(v) => { keepTank({ base: { ...tank.base, thickness_mm: v } }, "base"); }} />
      <Box height="4" />
      <Title>Room</Title>
      <TemperatureField label="by day" value={brief.room.day_c} take={(v) => { keepRoom({ day_c: v }); }} />
      <TemperatureField label="by night" value={brief.room.night_c} take={(v) => { keepRoom({ night_c: v }); }} />
      <NumberField label="may be off by" unit="K" value={brief.room.spread_k ?? 2} take={(v) => { keepRoom({ spread_k: v }); }} />
      <Box height="4" />
      <Title>The piece</Title>
      <Box as="dl" margin="0">
        <Row label="water above the bed">{volumeText(outcome.whole.free_volume_ml, units)}</Row>
        <Row label="weighs about">{outcome.whole.piece_kg} kg</Row>
        <Row label="wall above the fill line">{lengthText(outcome.whole.headroom_mm, units, 1)}</Row>
      </Box>
    </>
  );
}

export function BedInspector() {
  const { scene, keep, outcome, units } = useDesk();
  const shelf = useShelf();
  const { bed } = scene;
  const keepBed = (change: Partial<Scene["bed"]>, note: string) => { keep({ ...scene, bed: { ...bed, ...change } }, note); };
  const deepest = Math.max(...outcome.section.soundings.map((one) => one.depth_mm));
  return (
    <>
      <Title aside={`${bed.heights_mm.length} x ${bed.heights_mm[0]?.length ?? 0} points`}>The bed</Title>
      <Choice label="made of" value={bed.material.id} options={optionsOf(shelf?.solids.filter((one) => ["plaster", "foam", "polymer-clay", "wood"].includes(one.id)), bed.material)} take={(id) => { const material = shelf?.solids.find((one) => one.id === id); if (material) keepBed({ material }, "bed"); }} />
      <Tick label="sealed" value={bed.sealed ?? false} take={(sealed) => { keepBed({ sealed }, sealed ? "bed sealed" : "bed not sealed"); }} />
      <Colour label="colour" value={bed.paint_srgb ?? "#8a7a5a"} take={(paint_srgb) => { keepBed({ paint_srgb }, "bed colour"); }} />
      <Box as="dl" margin="0">
        <Row label="pores">{Math.round(bed.material.porosity_fraction * 100)} %</Row>
        <Row label="area to seal">{Math.round(outcome.whole.bed_area_cm2)} cm²</Row>
        <Row label="highest point">{lengthText(outcome.whole.bed_top_depth_mm, units)} deep</Row>
        <Row label="deepest sounding">{lengthText(deepest, units)}</Row>
        <Row label="water above it">{volumeText(outcome.whole.free_volume_ml, units)}</Row>
      </Box>
      <Caution>Cutting foam with hot wire and sanding make fumes and dust: respirator, open window.</Caution>
    </>
  );
}

export function Colour(props: { label: string; value: string; take: (value: string) => void }) {
  return (
    <Box asChild display="flex" justifyContent="space-between" borderBottom="1px solid" borderColor="wash" paddingY="3px" color="soft">
      <label>
        {props.label}
        <input type="color" value={props.value} onChange={(event) => { props.take(event.target.value); }} />
      </label>
    </Box>
  );
}

export function Caution({ children }: { children: React.ReactNode }) {
  return <Box marginTop="4" paddingLeft="3" borderLeft="3px solid" borderColor="caution" fontSize="14px">{children}</Box>;
}

export function FinishInspector() {
  const { scene, keep, outcome } = useDesk();
  const { finish } = scene;
  return (
    <>
      <Title>Finish</Title>
      <NumberField label="sand up to grit" value={finish.sand_to_grit} take={(v) => { keep({ ...scene, finish: { ...finish, sand_to_grit: Math.round(v) } }, "grit"); }} />
      <Tick label="edge coat on the faces" value={finish.edge_coat} take={(edge_coat) => { keep({ ...scene, finish: { ...finish, edge_coat } }, "edge coat"); }} />
      <Box as="dl" margin="0">
        <Row label="dam off">{outcome.whole.demould_at?.replace("T", " ") ?? "not in this room"}</Row>
        <Row label="full cure">{outcome.whole.full_cure_d === null ? "-" : `${Math.round(outcome.whole.full_cure_d)} d`}</Row>
      </Box>
      <Caution>Dust of half-cured resin is worst: wait for full cure, sand wet, wear a respirator. Follow the maker's safety data sheet.</Caution>
    </>
  );
}
