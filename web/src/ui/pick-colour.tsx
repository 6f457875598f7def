import { type ReactNode, useRef, useState } from "react";

import { BringFile } from "./bring-file";
import { Problem } from "./problem";

/** A photograph to press colours in; it stays in this browser. */
export function PickColour(props: {
  label: string;
  picture: string;
  width: number;
  tallest?: number;
  /** pixels to each side of the press whose mean is taken */
  around: number;
  take: (srgb: string) => void;
  told?: ReactNode;
  children: ReactNode;
}) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const [shown, setShown] = useState(false);
  const bring = async (file: File) => {
    try {
      const picture = await createImageBitmap(file);
      const height = Math.round((picture.height / picture.width) * props.width);
      const sheet = canvas.current;
      if (!sheet) return;
      sheet.width = props.width;
      sheet.height = Math.max(20, Math.min(props.tallest ?? height, height));
      sheet.getContext("2d", { willReadFrequently: true })?.drawImage(picture, 0, 0, props.width, sheet.height);
      setShown(true);
      setProblem(null);
    } catch {
      setProblem("This file is no photograph that can be read: bring a PNG or JPEG. Nothing was changed.");
    }
  };
  const side = 2 * props.around + 1;
  return (
    <>
      <BringFile
        label={props.label}
        accept="image/*"
        take={(file) => {
          void bring(file);
        }}
      >
        {props.children}
      </BringFile>
      {shown ? props.told : null}
      <canvas
        ref={canvas}
        width={0}
        height={0}
        className="press"
        aria-label={props.picture}
        onClick={(event) => {
          const box = event.currentTarget.getBoundingClientRect();
          const [x, y] = [event.clientX - box.left, event.clientY - box.top].map((at) => Math.floor(at) - props.around);
          const data = event.currentTarget.getContext("2d")?.getImageData(x ?? 0, y ?? 0, side, side).data;
          if (data) props.take(meanColour(data));
        }}
      />
      <Problem fontSize="14px">{problem}</Problem>
    </>
  );
}

/** The mean colour of some pixels, as a code. */
export function meanColour(data: ArrayLike<number>): string {
  const sums = [0, 0, 0];
  const count = data.length / 4;
  for (let at = 0; at < data.length; at += 4)
    for (const part of [0, 1, 2]) sums[part] = (sums[part] ?? 0) + (data[at + part] ?? 0);
  return `#${sums
    .map((sum) =>
      Math.round(sum / count)
        .toString(16)
        .padStart(2, "0"),
    )
    .join("")}`;
}
