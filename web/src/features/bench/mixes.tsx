import { Box } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";

import { ask } from "../../api/ask";
import { api } from "../../api/client";
import type { Outcome, Recipe, Scene } from "../../api/types";
import { LengthField, NumberField } from "../../desk/fields";
import { useDocument } from "../../desk/document";
import { Problem } from "../../ui/problem";
import { Choice, Row, Title } from "../../ui/row";
import { massText, volumeText } from "../../units/display";

/** Coats, gels, pastes, glues and sprays: by parts, for the area and thickness at hand. */
export function Mixes() {
  const { scene, outcome, units } = useDocument();
  const recipes = useQuery({ queryKey: ["recipes"], queryFn: () => ask(api.GET("/api/recipes")) });
  const [chosen, choose] = useState("seal_coat");
  const [resinId, setResin] = useState(scene.resins[0]?.id ?? "");
  const [typed, setTyped] = useState<{ area_cm2?: number; thickness_mm?: number }>({});
  const recipe = recipes.data?.find((one) => one.id === chosen);
  const resin = scene.resins.find((one) => one.id === resinId);
  const area_cm2 = typed.area_cm2 ?? (recipe ? areaOf(recipe, scene, outcome) : 0);
  const thickness_mm = typed.thickness_mm ?? recipe?.thickness_mm ?? 1;
  const mixture = useQuery({
    queryKey: ["mixture", chosen, resin, area_cm2, thickness_mm],
    enabled: recipe !== undefined && resin !== undefined && area_cm2 > 0,
    queryFn: () =>
      resin
        ? ask(api.POST("/api/recipes/scaled", { body: { recipe_id: chosen, resin, area_cm2, thickness_mm } }))
        : Promise.reject(new Error("no resin")),
  });
  if (!recipe || !resin) return <Problem>{recipes.error?.message}</Problem>;
  return (
    <>
      <Title>Mixes</Title>
      <Choice
        label="of"
        value={chosen}
        options={recipes.data?.map((one) => [one.id, one.name] as const) ?? []}
        take={(id) => {
          choose(id);
          setTyped({});
        }}
      />
      {recipe.by === "resin" ? (
        <Choice
          label="resin"
          value={resinId}
          options={scene.resins.map((one) => [one.id, one.name] as const)}
          take={setResin}
        />
      ) : null}
      <NumberField
        label={recipe.over === "none" ? "area" : `area of the ${recipe.over}`}
        unit="cm²"
        value={Math.round(area_cm2)}
        take={(value) => {
          setTyped({ ...typed, area_cm2: value });
        }}
      />
      <LengthField
        label="thick"
        value={thickness_mm}
        take={(value) => {
          setTyped({ ...typed, thickness_mm: value });
        }}
      />
      <Problem>{mixture.error?.message}</Problem>
      {mixture.data ? (
        <Box as="dl" margin="0" marginTop="2">
          {mixture.data.amounts.map((one) => (
            <Row key={one.name} label={one.name}>
              {volumeText(one.volume_ml, units)}, {massText(one.mass_g, units)}
            </Row>
          ))}
          <Row label="in all">
            {volumeText(mixture.data.volume_ml, units)}, {massText(mixture.data.mass_g, units)}
          </Row>
        </Box>
      ) : null}
      <Box marginTop="2" color="soft">
        {recipe.note}
      </Box>
    </>
  );
}

/** The area that a mix usually goes onto, in this scene. */
export function areaOf(recipe: Recipe, scene: Scene, outcome: Outcome): number {
  const last = outcome.pours.at(-1);
  switch (recipe.over) {
    case "bed":
      return outcome.filling.bed_area_cm2;
    case "faces":
      return (outcome.dam.perimeter_mm * scene.tank.fill_height_mm) / 100;
    case "surface":
      return last?.fill.free_surface_cm2 ?? 0;
    default:
      return 50;
  }
}
