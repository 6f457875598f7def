import { useCursor } from "../../desk/cursor";
import { useDocument } from "../../desk/document";
import { ask } from "../../api/ask";
import { Box, Flex } from "@chakra-ui/react";
import { useMutation } from "@tanstack/react-query";
import { useState } from "react";

import { api } from "../../api/client";
import type { Solved, Wish } from "../../api/types";
import { Deed, Pill, Word } from "../../ui/pill";
import { Choice, Row, Tick, Title } from "../../ui/row";
import { lengthText } from "../../units/display";
import { LengthField, NumberField } from "../../desk/fields";
import { useShelf } from "../../desk/shelf";

import { Photograph } from "./photograph";
import { Problem } from "../../ui/problem";

const TYPES = [
  ["I", "I, clearest ocean"],
  ["IB", "IB, clear ocean"],
  ["II", "II, ocean"],
  ["III", "III, murky ocean"],
  ["1C", "1C, clear coast"],
  ["3C", "3C, temperate coast"],
  ["5C", "5C, green coast"],
  ["7C", "7C, murky bay"],
  ["9C", "9C, peaty water"],
] as const;
const WAYS = [
  ["by_hand", "by hand, and see"],
  ["scale_true", "as real water at this scale"],
  ["by_eye", "by eye, colours at depths"],
] as const;
const FIRST: Wish = {
  look: { kind: "scale_true", water_type: "3C", exaggeration: 1, haze: false },
  most_colourants: 4,
  graded: false,
  keep_figure: null,
  keep_contrast: 0.5,
  most_step_de00: null,
};

/** The wished water, three ways, and the doses that come near. */
export function WishFor() {
  const desk = useDocument();
  const { scene, keep } = desk;
  const wish = scene.wish ?? null;
  const [picked, pick] = useState(0);
  const set = (change: Partial<Wish>) => {
    keep({ ...scene, wish: { ...(wish ?? FIRST), ...change } }, "wished water");
  };
  const solving = useMutation({
    mutationFn: () => ask(api.POST("/api/water/solve", { body: scene })),
    onSuccess: (found) => {
      desk.tryOut(found.remedy);
    },
  });
  const way = wish?.look.kind ?? "by_hand";
  const choose = (kind: string) => {
    solving.reset();
    if (kind === "by_hand") keep({ ...scene, wish: null }, "doses by hand");
    else if (kind === "scale_true") set({ look: FIRST.look });
    else
      set({
        look: {
          kind: "by_eye",
          picks: [
            { depth_mm: 5, srgb: "#cfe6dc" },
            { depth_mm: Math.round(scene.tank.fill_height_mm * 0.85), srgb: "#3c7a70" },
          ],
        },
      });
  };
  const look = wish?.look;
  return (
    <Box marginTop="4" role="group" aria-label="Wished water">
      <Title>Wished water</Title>
      <Choice label="wish" value={way} options={WAYS} take={choose} />
      {look?.kind === "scale_true" ? (
        <>
          <Choice
            label="like"
            value={look.water_type}
            options={TYPES}
            take={(water_type) => {
              set({ look: { ...look, water_type: water_type as "3C" } });
            }}
          />
          <NumberField
            label="exaggerated"
            unit="x"
            value={look.exaggeration ?? 1}
            take={(exaggeration) => {
              set({ look: { ...look, exaggeration } });
            }}
          />
          <Tick
            label="haze for true contrast"
            value={look.haze ?? false}
            take={(haze) => {
              set({ look: { ...look, haze } });
            }}
          />
          <Tick
            label="graded, clear on top"
            value={wish?.graded ?? false}
            take={(graded) => {
              set({ graded });
            }}
          />
        </>
      ) : null}
      {look?.kind === "by_eye" ? (
        <>
          {look.picks.map((one, index) => (
            <Flex
              key={index}
              gap="2"
              align="center"
              borderLeft="4px solid"
              borderColor={picked === index ? "ink" : "transparent"}
              paddingLeft="1"
            >
              <Box flex="1">
                <LengthField
                  label={`colour ${index + 1} at`}
                  value={one.depth_mm}
                  take={(depth_mm) => {
                    set({
                      look: {
                        ...look,
                        picks: look.picks.map((each, at) => (at === index ? { ...each, depth_mm } : each)),
                      },
                    });
                  }}
                />
              </Box>
              <input
                type="color"
                aria-label={`Wished colour ${index + 1}`}
                value={one.srgb}
                onFocus={() => {
                  pick(index);
                }}
                onChange={(event) => {
                  set({
                    look: {
                      ...look,
                      picks: look.picks.map((each, at) =>
                        at === index ? { ...each, srgb: event.target.value } : each,
                      ),
                    },
                  });
                }}
              />
              {look.picks.length > 2 ? (
                <Word
                  fontSize="14px"
                  aria-label={`Take colour ${index + 1} out`}
                  onClick={() => {
                    set({ look: { ...look, picks: look.picks.filter((_, at) => at !== index) } });
                  }}
                >
                  out
                </Word>
              ) : null}
            </Flex>
          ))}
          {look.picks.length < 8 ? (
            <AtGondola
              take={(depth_mm) => {
                set({ look: { ...look, picks: [...look.picks, { depth_mm, srgb: "#7fb3a2" }] } });
              }}
            />
          ) : null}
          <Photograph
            take={(srgb) => {
              set({
                look: { ...look, picks: look.picks.map((each, at) => (at === picked ? { ...each, srgb } : each)) },
              });
              pick((picked + 1) % look.picks.length);
            }}
            next={picked + 1}
          />
        </>
      ) : null}
      {wish ? (
        <>
          <NumberField
            label="bottles at most"
            value={wish.most_colourants ?? 4}
            take={(v) => {
              set({ most_colourants: Math.round(Math.min(7, Math.max(1, v))) });
            }}
          />
          <Owned />
          <Choice
            label="keep in sight"
            value={wish.keep_figure ?? ""}
            options={[["", "nothing set"], ...(scene.figures ?? []).map((one) => [one.id, one.name] as const)]}
            take={(id) => {
              set({ keep_figure: id || null });
            }}
          />
          {wish.keep_figure ? (
            <NumberField
              label="contrast left"
              unit="%"
              value={Math.round((wish.keep_contrast ?? 0.5) * 100)}
              take={(v) => {
                set({ keep_contrast: Math.min(1, Math.max(0, v / 100)) });
              }}
            />
          ) : null}
          <Tick
            label="no line above a step"
            value={wish.most_step_de00 !== null && wish.most_step_de00 !== undefined}
            take={(on) => {
              set({ most_step_de00: on ? 2 : null });
            }}
          />
          {wish.most_step_de00 ? (
            <NumberField
              label="step at most"
              value={wish.most_step_de00}
              take={(v) => {
                set({ most_step_de00: Math.min(30, Math.max(0.2, v)) });
              }}
            />
          ) : null}
          <Deed
            marginTop="2"
            width="100%"
            onClick={() => {
              solving.mutate();
            }}
            loading={solving.isPending}
          >
            Find the doses
          </Deed>
          <Problem fontSize="14px">{solving.error?.message}</Problem>
          {solving.data ? <Found solved={solving.data.solved} /> : null}
        </>
      ) : null}
    </Box>
  );
}

/** Another colour where the gondola hangs; by itself, so that its steps draw nothing else. */
function AtGondola({ take }: { take: (depth_mm: number) => void }) {
  const { units } = useDocument();
  const { depth_mm } = useCursor();
  return (
    <Word
      onClick={() => {
        take(depth_mm);
      }}
    >
      another colour at the gondola, {lengthText(depth_mm, units)}
    </Word>
  );
}

function Owned() {
  const { scene, keep } = useDocument();
  const shelf = useShelf();
  const inks = shelf?.colourants.filter((one) => one.modelled && (one.form === "ink" || one.form === "paste")) ?? [];
  const owned = scene.brief.owned?.length ? scene.brief.owned : (scene.colourants ?? []).map((one) => one.id);
  const turn = (id: string) => {
    const next = owned.includes(id) ? owned.filter((one) => one !== id) : [...owned, id];
    keep({ ...scene, brief: { ...scene.brief, owned: next } }, "colourants owned");
  };
  return (
    <Box marginTop="1">
      <Box color="soft" fontSize="14px">
        bottles you own
      </Box>
      <Flex wrap="wrap" gap="1">
        {inks.map((one) => (
          <Pill
            key={one.id}
            aria-pressed={owned.includes(one.id)}
            bg={owned.includes(one.id) ? "wash" : "transparent"}
            borderStyle={owned.includes(one.id) ? "solid" : "dotted"}
            paddingX="8px"
            onClick={() => {
              turn(one.id);
            }}
          >
            {one.name}
          </Pill>
        ))}
      </Flex>
    </Box>
  );
}

function Found({ solved }: { solved: Solved }) {
  const { units } = useDocument();
  const row = (values: readonly number[]) => values.map((one) => one.toFixed(1)).join("  ");
  return (
    <Box marginTop="2" fontSize="14px" role="status">
      <Box fontWeight={700}>{solved.sentence}</Box>
      <Box as="dl" margin="0">
        {solved.front_de00.length ? (
          <Row label="off in front" hint="dE00 of a white card at a quarter, half, three quarters and all of the depth">
            {row(solved.front_de00)}
          </Row>
        ) : null}
        {solved.top_de00.length ? <Row label="off from above">{row(solved.top_de00)}</Row> : null}
        {solved.eye_de00.length ? <Row label="off at your colours">{row(solved.eye_de00)}</Row> : null}
        <Row label="largest step at a line">{solved.largest_step_de00.toFixed(1)}</Row>
        <Row label="a gradient without lines" hint={`sharp joins; soft joins of ${lengthText(3, units)}`}>
          {solved.layers_sharp_count} layers, {solved.layers_soft_count} if soft
        </Row>
      </Box>
    </Box>
  );
}
