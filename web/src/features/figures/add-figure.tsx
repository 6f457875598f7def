import { lengthText, volumeText } from "../../units/display";
import { useDocument } from "../../desk/document";
import { FIGURE_KIND, useNewFigure } from "../../desk/new-figure";
import { Box, Flex } from "@chakra-ui/react";
import { useState } from "react";

import { ask } from "../../api/ask";
import { api } from "../../api/client";
import { Word } from "../../ui/pill";
import { Choice, Title } from "../../ui/row";
import { Problem } from "../../ui/problem";
import { BringFile } from "../../ui/bring-file";

const KINDS = ["fish", "eel", "hull", "wagon", "plank", "post", "ladder", "sphere", "ring", "tuft"] as const;

/** A figure to plan with, made from a few measures, or a mesh that is brought in. */
export function AddFigure() {
  const { units } = useDocument();
  const [unit, setUnit] = useState("");
  const [upright, setUpright] = useState("");
  const [problem, setProblem] = useState<string | null>(null);
  const [said, setSaid] = useState<string | null>(null);
  const refuse = (tail: string) => (flaw: unknown) => {
    setProblem(`${flaw instanceof Error ? flaw.message : "The server cannot be reached."}${tail}`);
  };
  const newFigure = useNewFigure();
  const add = async (...asked: Parameters<typeof newFigure>) => {
    await newFigure(...asked);
    setProblem(null);
  };
  const bring = async (file: File) => {
    setProblem(null);
    setSaid(null);
    const kind = file.name.split(".").pop()?.toLowerCase() ?? "";
    const name = file.name.replace(/\.[^.]*$/, "").replace(/[-_]+/g, " ");
    const data = await ask(
      api.POST("/api/meshes", {
        params: { query: { kind, name, ...(unit ? { unit } : {}), ...(upright ? { upright } : {}) } },
        body: file as unknown as string,
        bodySerializer: () => file,
        headers: { "Content-Type": "application/octet-stream" },
      }),
    );
    setSaid(
      [
        `${name}: ${data.size_mm.map((mm) => lengthText(mm, units, 1)).join(" x ")}, ${volumeText(data.volume_ml, units, 2)}, ${data.triangles_count.toLocaleString("en")} triangles.`,
        ...data.words,
        ...(data.coloured ? ["It wears the colours of its file."] : []),
      ].join(" "),
    );
    await add("mesh", { mesh: { mesh_id: data.mesh_id, name } });
  };
  return (
    <Box marginTop="4">
      <Title>Add a figure</Title>
      <Box fontSize="14px" color="soft">
        Press a word and it comes to a free place, or drag it onto the section or the plan.
      </Box>
      <Flex wrap="wrap" columnGap="3">
        {KINDS.map((kind) => (
          <Word
            key={kind}
            textDecoration="underline"
            draggable
            onDragStart={(event) => {
              event.dataTransfer.setData(FIGURE_KIND, kind);
              event.dataTransfer.effectAllowed = "copy";
            }}
            onClick={() => {
              add(kind).catch(refuse(""));
            }}
          >
            {kind}
          </Word>
        ))}
      </Flex>
      <BringFile
        label="Mesh of a figure"
        accept=".stl,.obj,.glb,.ply"
        take={(file) => {
          bring(file).catch(refuse(" Nothing was added."));
        }}
      >
        bring a mesh (STL, OBJ, GLB, PLY)
      </BringFile>
      <Choice
        label="its unit"
        value={unit}
        options={[
          ["", "as the file says"],
          ["mm", "millimetres"],
          ["cm", "centimetres"],
          ["m", "metres"],
          ["in", "inches"],
        ]}
        take={setUnit}
      />
      <Choice
        label="its upright axis"
        value={upright}
        options={[
          ["", "usual for the format"],
          ["z", "z"],
          ["y", "y"],
        ]}
        take={setUpright}
      />
      {said ? (
        <Box role="status" fontSize="14px">
          {said}
        </Box>
      ) : null}
      <Problem fontSize="14px">{problem}</Problem>
    </Box>
  );
}
