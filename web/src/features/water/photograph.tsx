import { Box } from "@chakra-ui/react";
import { useRef, useState } from "react";

import { Word } from "../../ui/pill";

const WIDTH = 224;

/** A reference photograph: press it to pick a colour. It stays in this browser. */
export function Photograph({ take, next }: { take: (srgb: string) => void; next: number }) {
  const picker = useRef<HTMLInputElement>(null);
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
      <input
        ref={picker}
        type="file"
        hidden
        accept="image/*"
        aria-label="Reference photograph"
        onChange={(event) => {
          const file = event.target.files?.[0];
          if (file) void bring(file);
          event.target.value = "";
        }}
      />
      <Word paddingLeft="0" textDecoration="underline" onClick={() => picker.current?.click()}>
        pick from a photograph
      </Word>
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
      {problem ? (
        <Box role="alert" color="caution" fontSize="14px">
          {problem}
        </Box>
      ) : null}
    </Box>
  );
}
