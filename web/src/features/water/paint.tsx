import { useChoice } from "../../desk/choice";
import { useDocument } from "../../desk/document";
import { Box, Flex } from "@chakra-ui/react";
import { useMutation } from "@tanstack/react-query";
import { useState } from "react";

import { ask } from "../../api/ask";
import { api } from "../../api/client";
import { saveBlob } from "../../api/download";
import type { Figure, PaintAnswer } from "../../api/types";
import { Colour } from "../../ui/colour";
import { Pill } from "../../ui/pill";
import { Choice, Tick, Title } from "../../ui/row";
import { lengthText } from "../../units/display";
import { withFigure } from "../../desk/edits";
import { swatchCard } from "./swatch-card";
import { Problem } from "../../ui/problem";

/** How a figure's paint reads where it is, and the paint that would read as wished. */
export function Paint() {
  const desk = useDocument();
  const choice = useChoice();
  const { scene, keep, units } = desk;
  const figures = scene.figures ?? [];
  const figure = figures.find((one) => one.id === choice.figureId) ?? figures[0];
  const [wished, wish] = useState("#c03020");
  const asking = useMutation({
    mutationFn: async (asked: { id: string; srgb: string }) => ({
      told: await ask(api.POST("/api/water/paint", { body: { scene, figure_id: asked.id, wished_srgb: asked.srgb } })),
      of: scene,
    }),
  });
  if (!figure) return null;
  const answer = asking.data?.of === scene && asking.data.told.figure_id === figure.id ? asking.data.told : null;
  const move = (place: PaintAnswer["places"][number]) => {
    keep(
      withFigure(scene, figure.id, {
        place: { ...figure.place, behind_mm: place.behind_mm, height_mm: scene.tank.fill_height_mm - place.depth_mm },
      }),
      `moved ${figure.name}`.slice(0, 100),
    );
  };
  const paint = (change: Partial<Figure>) => {
    keep(withFigure(scene, figure.id, change), `paint of ${figure.name}`.slice(0, 100));
  };
  const zone = (change: Partial<NonNullable<Figure["zones"]>>) => {
    paint({ zones: { ...figure.zones, ...change } as NonNullable<Figure["zones"]> });
  };
  return (
    <Box marginTop="4" role="group" aria-label="Paint">
      <Title>Paint</Title>
      <Choice
        label="of"
        value={figure.id}
        options={figures.map((one) => [one.id, one.name] as const)}
        take={(id) => {
          choice.chooseFigure(id);
        }}
      />
      {figure.file_srgb ? (
        <Tick
          label="colours of its own file"
          value={figure.own_colours ?? false}
          take={(own_colours) => {
            paint({ own_colours });
          }}
        />
      ) : null}
      {figure.file_srgb && figure.own_colours ? null : (
        <>
          <Colour
            label="flank"
            value={figure.paint_srgb}
            take={(paint_srgb) => {
              paint({ paint_srgb });
            }}
          />
          <Colour
            label="back"
            value={figure.zones?.back_srgb ?? figure.paint_srgb}
            take={(back_srgb) => {
              zone({ back_srgb });
            }}
          />
          <Colour
            label="belly"
            value={figure.zones?.belly_srgb ?? figure.paint_srgb}
            take={(belly_srgb) => {
              zone({ belly_srgb });
            }}
          />
          <Colour
            label="marks"
            value={figure.zones?.mark_srgb ?? figure.paint_srgb}
            take={(mark_srgb) => {
              zone({ mark_srgb });
            }}
          />
        </>
      )}
      <Colour label="should read as" value={wished} take={wish} />
      <Flex gap="1" wrap="wrap" marginTop="1">
        <Pill
          onClick={() => {
            asking.mutate({ id: figure.id, srgb: wished });
          }}
          loading={asking.isPending}
        >
          which paint?
        </Pill>
        {answer ? (
          <Pill
            onClick={() => {
              saveBlob(
                new Blob([swatchCard(figure.name, answer)], { type: "image/svg+xml" }),
                `paint-${figure.id}.svg`,
              );
            }}
          >
            swatch card
          </Pill>
        ) : null}
      </Flex>
      <Problem>{asking.error?.message}</Problem>
      {answer ? (
        <Box fontSize="14px" marginTop="2" role="status">
          <Box>{answer.sentence}</Box>
          <Chips
            rows={[
              ["paint it", answer.paint_srgb],
              ["reads as", answer.reads_srgb],
              ["wished", answer.wished_srgb],
              ["white reads as", answer.white_reads_srgb],
              ...answer.zones.map((one): [string, string] => [`${one.zone} reads`, one.reads_srgb]),
            ]}
          />
          {answer.places.map((place) => (
            <Box key={place.words} borderTop="1px solid" borderColor="wash" paddingY="2px">
              {place.words}: off by {place.gap_de00.toFixed(1)} at {lengthText(place.depth_mm, units)} deep,{" "}
              {lengthText(place.behind_mm, units)} behind
              <Box>
                <Pill
                  tone="depth"
                  aria-label={`Move: ${place.words}`}
                  onClick={() => {
                    move(place);
                  }}
                >
                  move it there
                </Pill>
              </Box>
            </Box>
          ))}
        </Box>
      ) : null}
    </Box>
  );
}

function Chips({ rows }: { rows: readonly (readonly [string, string])[] }) {
  return (
    <Flex wrap="wrap" gap="2" marginY="1">
      {rows.map(([word, colour]) => (
        <Box key={word}>
          <svg width="62" height="22" aria-hidden="true">
            <rect width="62" height="22" fill={colour} stroke="var(--hair)" />
          </svg>
          <Box fontSize="13px" lineHeight="1.1">
            {word}
            <br />
            <Box as="span" fontStyle="italic" color="depth">
              {colour}
            </Box>
          </Box>
        </Box>
      ))}
    </Flex>
  );
}
