import { Box, Flex } from "@chakra-ui/react";
import { useRef, useState } from "react";

import { api } from "../../api/client";
import { refused } from "../../api/refusal";
import { Word } from "../../ui/pill";
import { Choice, Title } from "../../ui/row";
import { useDesk } from "../workspace";

const KINDS = ["fish", "eel", "hull", "wagon", "plank", "post", "ladder", "sphere", "ring", "tuft"] as const;

/** A figure to plan with, made from a few measures, or a mesh that is brought in. */
export function AddFigure() {
  const desk = useDesk();
  const { scene, keep } = desk;
  const picker = useRef<HTMLInputElement>(null);
  const [unit, setUnit] = useState("");
  const [upright, setUpright] = useState("");
  const [problem, setProblem] = useState<string | null>(null);
  const [said, setSaid] = useState<string | null>(null);
  const add = async (kind: string, mesh?: { mesh_id: string; name: string }) => {
    const { data, error, response } = await api.POST("/api/figures/new", { body: { scene, kind, ...mesh } });
    if (!data) {
      setProblem(refused(error, response.status).message);
      return;
    }
    setProblem(null);
    keep({ ...scene, figures: [...(scene.figures ?? []), data.figure] }, `added ${data.figure.name}`.slice(0, 100));
    desk.chooseFigure(data.figure.id);
  };
  const bring = async (file: File) => {
    setProblem(null);
    setSaid(null);
    const kind = file.name.split(".").pop()?.toLowerCase() ?? "";
    const name = file.name.replace(/\.[^.]*$/, "").replace(/[-_]+/g, " ");
    const { data, error, response } = await api.POST("/api/meshes", {
      params: { query: { kind, name, ...(unit ? { unit } : {}), ...(upright ? { upright } : {}) } },
      body: file as unknown as string,
      bodySerializer: () => file,
      headers: { "Content-Type": "application/octet-stream" },
    });
    if (!data) {
      setProblem(`${refused(error, response.status).message} Nothing was added.`);
      return;
    }
    setSaid([`${name}: ${data.size_mm.map((mm) => mm.toFixed(1)).join(" x ")} mm, ${data.volume_ml.toFixed(2)} ml, ${data.triangles_count.toLocaleString("en")} triangles.`, ...data.words, ...(data.coloured ? ["It wears the colours of its file."] : [])].join(" "));
    await add("mesh", { mesh_id: data.mesh_id, name });
  };
  return (
    <Box marginTop="4">
      <Title>Add a figure</Title>
      <Flex wrap="wrap" columnGap="3">
        {KINDS.map((kind) => <Word key={kind} textDecoration="underline" onClick={() => void add(kind)}>{kind}</Word>)}
      </Flex>
      <input ref={picker} type="file" hidden aria-label="Mesh of a figure" accept=".stl,.obj,.glb,.ply" onChange={(event) => { const file = event.target.files?.[0]; if (file) void bring(file); event.target.value = ""; }} />
      <Word paddingLeft="0" textDecoration="underline" onClick={() => picker.current?.click()}>bring a mesh (STL, OBJ, GLB, PLY)</Word>
      <Choice label="its unit" value={unit} options={[["", "as the file says"], ["mm", "millimetres"], ["cm", "centimetres"], ["m", "metres"], ["in", "inches"]]} take={setUnit} />
      <Choice label="its upright axis" value={upright} options={[["", "usual for the format"], ["z", "z"], ["y", "y"]]} take={setUpright} />
      {said ? <Box role="status" fontSize="14px">{said}</Box> : null}
      {problem ? <Box role="alert" color="caution" fontSize="14px">{problem}</Box> : null}
    </Box>
  );
}
