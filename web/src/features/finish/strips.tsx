import { useMutation } from "@tanstack/react-query";

import { ask } from "../../api/ask";
import { api } from "../../api/client";
import { saveBlob } from "../../api/download";
import { useDocument } from "../../desk/document";
import { Pill } from "../../ui/pill";
import { Problem } from "../../ui/problem";

const FILES = ["svg", "dxf", "pdf"] as const;
type File = (typeof FILES)[number];

/** Strips that hide the edge of the bed, as files to cut by, at true size. */
export function Strips() {
  const { scene } = useDocument();
  const fetching = useMutation({
    mutationFn: async (kind: File) => {
      const options = { body: scene, parseAs: "blob" as const };
      const asked =
        kind === "svg"
          ? api.POST("/api/strips/svg", options)
          : kind === "dxf"
            ? api.POST("/api/strips/dxf", options)
            : api.POST("/api/strips/pdf", options);
      saveBlob((await ask(asked)) as unknown as Blob, `edge-strips.${kind}`);
    },
  });
  return (
    <>
      {FILES.map((kind) => (
        <Pill
          key={kind}
          marginRight="1"
          onClick={() => {
            fetching.mutate(kind);
          }}
        >
          {kind.toUpperCase()}
        </Pill>
      ))}
      <Problem>{fetching.error?.message}</Problem>
    </>
  );
}
