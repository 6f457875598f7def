import { ask } from "../../api/ask";
import { Box } from "@chakra-ui/react";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";

import { api } from "../../api/client";
import type { Shelf, SolidMaterial } from "../../api/types";
import { Pill, Word } from "../../ui/pill";
import { Title } from "../../ui/row";
import { NumberField, TemperatureField } from "../../desk/fields";
import { useShelf } from "../../desk/shelf";
import { Problem } from "../../ui/problem";

/** A material's data as the person has them, kept in their own library in place of the generic row. */
export function OwnMaterial({ material, take }: { material: SolidMaterial; take: (material: SolidMaterial) => void }) {
  const shelf = useShelf();
  const queries = useQueryClient();
  const [open, setOpen] = useState(false);
  const [edited, setEdited] = useState(material);
  const [source, setSource] = useState("");
  const note = shelf?.notes
    .filter((one) => one.kind === "solid" && one.id === material.id)
    .sort((a, b) => Number(b.own) - Number(a.own))[0];
  const arrive = (next: Shelf) => {
    queries.setQueryData(["library"], next);
    const row = next.solids.find((one) => one.id === material.id);
    if (row) {
      take(row);
      setEdited(row);
    }
  };
  const keeping = useMutation({
    mutationFn: () =>
      ask(
        api.PUT("/api/library/{kind}", {
          params: { path: { kind: "solid" } },
          body: { body: edited as unknown as Record<string, never>, source },
        }),
      ),
    onSuccess: arrive,
  });
  const dropping = useMutation({
    mutationFn: () =>
      ask(api.DELETE("/api/library/{kind}/{key}", { params: { path: { kind: "solid", key: material.id } } })),
    onSuccess: arrive,
  });
  const set = (change: Partial<SolidMaterial>) => {
    setEdited({ ...edited, ...change });
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
        data of {material.name}
      </Word>
    );
  return (
    <Box marginTop="4" role="group" aria-label={`Data of ${material.name}`}>
      <Title aside={note?.own ? "your own" : "generic"}>{material.name}</Title>
      <NumberField
        label="density"
        unit="g/ml"
        value={edited.density_g_ml}
        take={(v) => {
          set({ density_g_ml: v });
        }}
      />
      <NumberField
        label="conducts"
        unit="W/mK"
        value={edited.conductivity_w_mk}
        take={(v) => {
          set({ conductivity_w_mk: v });
        }}
      />
      <NumberField
        label="stiffness"
        unit="GPa"
        value={edited.stiffness_gpa ?? 0}
        take={(v) => {
          set({ stiffness_gpa: v > 0 ? v : null });
        }}
      />
      <TemperatureField
        label="softens at"
        value={edited.limit_c}
        take={(v) => {
          set({ limit_c: v });
        }}
      />
      <Box asChild width="100%" border="1px solid" borderColor="hair" padding="1" marginTop="2" bg="plot">
        <input
          aria-label="Where these numbers are from"
          placeholder="where these numbers are from"
          value={source}
          onChange={(event) => {
            setSource(event.target.value);
          }}
        />
      </Box>
      <Box fontSize="14px" color="soft" marginY="1">
        {note?.source}
      </Box>
      <Pill
        onClick={() => {
          keeping.mutate();
        }}
        loading={keeping.isPending}
      >
        keep as my own
      </Pill>
      {note?.own ? (
        <Word
          onClick={() => {
            dropping.mutate();
          }}
        >
          back to generic
        </Word>
      ) : null}
      {keeping.error ? <Problem fontSize="14px">{keeping.error.message} Nothing was changed.</Problem> : null}
    </Box>
  );
}
