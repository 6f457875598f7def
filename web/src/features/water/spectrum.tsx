import { useDocument } from "../../desk/document";
import { ask } from "../../api/ask";
import { Box } from "@chakra-ui/react";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";

import { api } from "../../api/client";
import { NumberField } from "../../desk/fields";
import { Problem } from "../../ui/problem";
import { BringFile } from "../../ui/bring-file";

const LARGEST = 1_000_000;

/** A bottle of one's own from a measured spectrum; kept in the library and taken into the scene. */
export function Spectrum() {
  const { scene, keep } = useDocument();
  const shelf = useQueryClient();
  const [drops_per_100g, setDrops] = useState(1);
  const [path_mm, setPath] = useState(10);
  const bringing = useMutation({
    mutationFn: async (file: File) => {
      if (file.size > LARGEST) throw new Error("This spectrum is over 1 MB: keep one row for each nm.");
      const name = file.name.replace(/\.[^.]*$/, "").slice(0, 80) || "my ink";
      return ask(
        api.POST("/api/water/spectrum", {
          body: { measured: { text: await file.text(), name, drops_per_100g, path_mm, drop_g: 0.03 } },
        }),
      );
    },
    onSuccess: (ink) => {
      void shelf.invalidateQueries({ queryKey: ["library"] });
      keep(
        { ...scene, colourants: [...(scene.colourants ?? []).filter((one) => one.id !== ink.id), ink] },
        `took ${ink.name}`.slice(0, 100),
      );
    },
  });
  return (
    <Box marginTop="2" role="group" aria-label="A measured spectrum">
      <BringFile
        label="Spectrum of a colourant"
        accept=".csv,.txt,text/*"
        take={(file) => {
          bringing.mutate(file);
        }}
      >
        your own bottle, by its spectrum
      </BringFile>
      <Box fontSize="14px" color="soft">
        a CSV: wavelength in nm, absorbance
      </Box>
      <NumberField label="measured at" unit="drops/100 g" value={drops_per_100g} take={setDrops} />
      <NumberField label="through" unit="mm" value={path_mm} take={setPath} />
      {bringing.error ? <Problem fontSize="14px">{bringing.error.message} Nothing was changed.</Problem> : null}
    </Box>
  );
}
