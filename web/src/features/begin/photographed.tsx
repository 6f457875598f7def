import { Box, Flex, Input } from "@chakra-ui/react";
import { type MouseEvent, useEffect, useState } from "react";

import { ask } from "../../api/ask";
import { api } from "../../api/client";
import { useUnits } from "../../desk/units";
import { BringFile } from "../../ui/bring-file";
import { Word } from "../../ui/pill";
import { Problem } from "../../ui/problem";
import { lengthText } from "../../units/display";
import { readQuantity } from "../../units/entry";
import type { Asked } from "./answers";

const CORNERS = ["front left", "front right", "back right", "back left"];

interface Clicked {
  at_px: number[];
  depth_mm: number;
}

/** A photograph of the built base in its dam: four corners clicked, then a depth typed where it was measured. */
export function Photographed({ answers, take }: Asked) {
  const units = useUnits();
  const [address, setAddress] = useState<string | null>(null);
  const [corners, setCorners] = useState<number[][]>([]);
  const [depths, setDepths] = useState<Clicked[]>([]);
  const [open, setOpen] = useState<number[] | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const refuse = (flaw: unknown) => {
    setProblem(flaw instanceof Error ? flaw.message : "The server cannot be reached.");
  };
  useEffect(
    () => () => {
      if (address) URL.revokeObjectURL(address);
    },
    [address],
  );
  const click = (event: MouseEvent<HTMLImageElement>) => {
    const box = event.currentTarget.getBoundingClientRect();
    const at = [event.clientX - box.left, event.clientY - box.top];
    if (corners.length < CORNERS.length) setCorners([...corners, at]);
    else setOpen(at);
  };
  const measure = async (text: string) => {
    if (!open) return;
    const depth_mm = await readQuantity(text, "length", units);
    const all = [...depths, { at_px: open, depth_mm }];
    const { measured } = await ask(
      api.POST("/api/beds/photographed", {
        body: { width_mm: answers.width_mm, behind_mm: answers.behind_mm, corners_px: corners, depths: all },
      }),
    );
    setDepths(all);
    setOpen(null);
    setProblem(null);
    take({ measured });
  };
  const again = () => {
    setCorners([]);
    setDepths([]);
    setOpen(null);
    setProblem(null);
    take({ measured: [] });
  };
  return (
    <Box marginBottom="2">
      <BringFile
        label="Photograph of the base"
        accept="image/png,image/jpeg,image/webp"
        take={(file) => {
          again();
          setAddress(URL.createObjectURL(file));
        }}
      >
        or from a photograph of the built base in its dam
      </BringFile>
      {address ? (
        <>
          <Box role="status" color="soft">
            {corners.length < CORNERS.length
              ? `Click the ${CORNERS[corners.length] ?? ""} corner of the dam.`
              : depths.length === 0
                ? "Click where you measured a depth, and type it."
                : `${depths.length} ${depths.length === 1 ? "depth" : "depths"}; click for another.`}
          </Box>
          <Box position="relative" width="100%" maxWidth="420px" marginY="1">
            <img
              src={address}
              alt="The built base in its dam"
              style={{ width: "100%", cursor: "crosshair" }}
              onClick={click}
            />
            <svg
              style={{ position: "absolute", inset: 0, width: "100%", height: "100%", pointerEvents: "none" }}
              aria-hidden="true"
            >
              {corners.map(([x, y], at) => (
                <circle key={CORNERS[at]} cx={x} cy={y} r="6" fill="none" stroke="var(--caution)" strokeWidth="2.5" />
              ))}
              {depths.map((one, at) => (
                <text
                  key={at}
                  x={one.at_px[0]}
                  y={one.at_px[1]}
                  fontSize="16"
                  fontWeight={800}
                  fontStyle="italic"
                  fill="var(--depth)"
                  stroke="var(--paper)"
                  strokeWidth="4"
                  paintOrder="stroke"
                  textAnchor="middle"
                >
                  {lengthText(one.depth_mm, units)}
                </text>
              ))}
            </svg>
          </Box>
          {open ? (
            <Flex asChild gap="2" align="center">
              <form
                onSubmit={(event) => {
                  event.preventDefault();
                  measure(String(new FormData(event.currentTarget).get("depth") ?? "")).catch(refuse);
                }}
              >
                <label htmlFor="clicked-depth">below the fill line</label>
                <Input id="clicked-depth" name="depth" autoFocus width="100px" height="28px" />
                <Word type="submit">take it</Word>
              </form>
            </Flex>
          ) : null}
          {corners.length > 0 ? <Word onClick={again}>click the corners again</Word> : null}
        </>
      ) : null}
      <Problem>{problem}</Problem>
    </Box>
  );
}
