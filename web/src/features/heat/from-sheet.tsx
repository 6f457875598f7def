import { useChoice } from "../../desk/choice";
import { useDocument } from "../../desk/document";
import { Box } from "@chakra-ui/react";
import { useMutation } from "@tanstack/react-query";
import { useState } from "react";

import { ask } from "../../api/ask";
import { api } from "../../api/client";
import { Pill, Word } from "../../ui/pill";
import { Choice, Title } from "../../ui/row";
import { LengthField, NumberField, TemperatureField } from "../../desk/fields";
import { useShelf } from "../../desk/shelf";
import { withPour } from "../../desk/edits";
import { Problem } from "../../ui/problem";

/** A resin of one's own from what its data sheet says; kept in the library and used in this pour. */
export function FromSheet() {
  const { scene, keep } = useDocument();
  const { pourNumber } = useChoice();
  const shelf = useShelf();
  const [open, setOpen] = useState(false);
  const [chosen, setLike] = useState<string | null>(null);
  const like = chosen ?? shelf?.resins[0]?.id ?? "";
  const [name, setName] = useState("my resin");
  const [sheet, setSheet] = useState({
    pot_life_min: 240,
    pot_mass_g: 100,
    pot_c: 25,
    most_pour_mm: 40,
    most_mix_g: 1000,
    viscosity_mpa_s: 350,
    least_room_c: 18,
  });
  const asking = useMutation({
    mutationFn: async () => {
      const id =
        name
          .toLowerCase()
          .replace(/[^a-z0-9]+/g, "-")
          .replace(/^-+|-+$/g, "")
          .slice(0, 40) || "my-resin";
      const data = await ask(
        api.POST("/api/heat/from-sheet", { body: { sheet: { id, name, ...sheet }, like_id: like } }),
      );
      await ask(
        api.PUT("/api/library/{kind}", {
          params: { path: { kind: "resin" } },
          body: { body: data.resin as unknown as Record<string, never>, source: data.words },
        }),
      );
      return data;
    },
    onSuccess: (fit) => {
      const resins = [...scene.resins.filter((one) => one.id !== fit.resin.id), fit.resin];
      keep(
        withPour({ ...scene, resins }, pourNumber, { resin_id: fit.resin.id }),
        `resin ${fit.resin.name}`.slice(0, 100),
      );
    },
  });
  const set = (change: Partial<typeof sheet>) => {
    setSheet({ ...sheet, ...change });
  };
  if (!open)
    return (
      <Word
        marginTop="3"
        paddingLeft="0"
        textDecoration="underline"
        onClick={() => {
          setOpen(true);
        }}
      >
        a resin from its data sheet
      </Word>
    );
  return (
    <Box marginTop="4" role="group" aria-label="A resin from its data sheet">
      <Title>From its data sheet</Title>
      <Box asChild width="100%" border="1px solid" borderColor="hair" padding="1" bg="plot">
        <input
          aria-label="Name of the resin"
          value={name}
          maxLength={80}
          onChange={(event) => {
            setName(event.target.value);
          }}
        />
      </Box>
      <Choice
        label="of the class"
        value={like}
        options={(shelf?.resins ?? []).filter((one) => !one.light).map((one) => [one.id, one.name] as const)}
        take={setLike}
      />
      <NumberField
        label="pot life"
        unit="min"
        value={sheet.pot_life_min}
        take={(pot_life_min) => {
          set({ pot_life_min });
        }}
      />
      <NumberField
        label="for a mass of"
        unit="g"
        value={sheet.pot_mass_g}
        take={(pot_mass_g) => {
          set({ pot_mass_g });
        }}
      />
      <TemperatureField
        label="at"
        value={sheet.pot_c}
        take={(pot_c) => {
          set({ pot_c });
        }}
      />
      <LengthField
        label="most depth"
        value={sheet.most_pour_mm}
        take={(most_pour_mm) => {
          set({ most_pour_mm });
        }}
      />
      <NumberField
        label="most at once"
        unit="g"
        value={sheet.most_mix_g}
        take={(most_mix_g) => {
          set({ most_mix_g });
        }}
      />
      <NumberField
        label="viscosity"
        unit="mPa s"
        value={sheet.viscosity_mpa_s}
        take={(viscosity_mpa_s) => {
          set({ viscosity_mpa_s });
        }}
      />
      <Pill
        marginTop="2"
        onClick={() => {
          asking.mutate();
        }}
        loading={asking.isPending}
      >
        fit it and pour with it
      </Pill>
      {asking.error ? <Problem fontSize="14px">{asking.error.message} Nothing was changed.</Problem> : null}
      {asking.data ? (
        <Box role="status" fontSize="14px">
          {asking.data.words}. Rate within {Math.round(asking.data.rate_spread_fraction * 100)} %, heat within{" "}
          {Math.round(asking.data.heat_spread_fraction * 100)} %.
        </Box>
      ) : null}
    </Box>
  );
}
