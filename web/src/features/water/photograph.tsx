import { Box } from "@chakra-ui/react";
import { useRef, useState } from "react";

import { Problem } from "../../ui/problem";
import { BringFile } from "../../ui/bring-file";

const WIDTH = 224;

/** A reference photograph: press it to pick a colour. It stays in this browser. */
export function Photograph({ take, next }: { take: (srgb: string) => void; next: number }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const [shown, setShown] = useState(false);
  const bring = async (file: File) => {
    try {
      const picture = await createImageBitmap(file);
      const height = Math.max(20, Math.min(260, Math.round((picture.height / picture.width) * WIDTH)));
      const sheet = canvas.current;
      if (!sheet) return;
      sheet.width = WIDTH;
      sheet.height = height;
      sheet.getContext("2d", { willReadFrequently: true })?.drawImage(picture, 0, 0, WIDTH, height);
      setShown(true);
      setProblem(null);
    } catch {
      setProblem("This file is no photograph that can be read: bring a PNG or JPEG. Nothing was changed.");
    }
  };
  return (
    <Box marginTop="1">
      <BringFile
        label="Reference photograph"
        accept="image/*"
        take={(file) => {
          void bring(file);
        }}
      >
        pick from a photograph
      </BringFile>
      {shown ? (
        <Box fontSize="14px" color="soft">
          press it for colour {next}
        </Box>
      ) : null}
      <canvas
        ref={canvas}
        width={0}
        height={0}
        className="press"
        aria-label="Photograph to pick from"
        onClick={(event) => {
          const box = event.currentTarget.getBoundingClientRect();
          const pixel = event.currentTarget
            .getContext("2d")
            ?.getImageData(Math.floor(event.clientX - box.left), Math.floor(event.clientY - box.top), 1, 1).data;
          if (pixel) take(`#${[...pixel.slice(0, 3)].map((part) => part.toString(16).padStart(2, "0")).join("")}`);
        }}
      />
      <Problem fontSize="14px">{problem}</Problem>
    </Box>
  );
}
