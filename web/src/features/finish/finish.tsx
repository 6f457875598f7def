import { Box } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";

import { ask } from "../../api/ask";
import { api } from "../../api/client";
import type { Finishing } from "../../api/types";
import { useDocument } from "../../desk/document";
import { LengthField, NumberField } from "../../desk/fields";
import { Caution } from "../../ui/caution";
import { Parts } from "../../ui/parts";
import { Word } from "../../ui/pill";
import { Problem } from "../../ui/problem";
import { Row, Tick, Title } from "../../ui/row";
import { areaText, lengthText, volumeText, whenText } from "../../units/display";
import { DamOff } from "./dam-off";
import { Strips } from "./strips";

/** What follows the last pour: the steps, the faces by both schools, and the top. */
export function FinishInspector() {
  const { outcome, outcomeOf } = useDocument();
  const told = useQuery({
    queryKey: ["finish", outcome.scene_digest, outcomeOf.finish],
    staleTime: Infinity,
    placeholderData: (before) => before,
    queryFn: () => ask(api.POST("/api/finish", { body: outcomeOf })),
  });
  if (told.error) return <Problem>{told.error.message}</Problem>;
  if (!told.data) return <Box color="soft">Reckoning what follows the last pour ...</Box>;
  const finish = told.data;
  return (
    <Parts
      label="the finish"
      parts={[
        { word: "steps", part: <Steps finish={finish} /> },
        { word: "faces", part: <Faces finish={finish} /> },
        { word: "top and edge", part: <Top finish={finish} /> },
      ]}
    />
  );
}

function Steps({ finish }: { finish: Finishing }) {
  const [open, setOpen] = useState<string | null>(null);
  return (
    <>
      <Title aside={finish.demould_at ? `dam off ${whenText(finish.demould_at)}` : "it does not become hard"}>
        After the last pour
      </Title>
      <Box as="ol" margin="0" paddingLeft="20px" listStyleType="decimal">
        {finish.steps.map((step) => (
          <Box as="li" key={step.id} marginTop="6px">
            <Word
              padding="0"
              fontWeight={700}
              color="ink"
              aria-expanded={open === step.id}
              onClick={() => {
                setOpen(open === step.id ? null : step.id);
              }}
            >
              {step.title}
            </Word>
            <Box>{step.under}</Box>
            {step.minutes !== null && open === step.id ? (
              <Box color="soft" fontSize="14px">
                some {Math.round(step.minutes)} min of work
              </Box>
            ) : null}
            {step.caution ? (
              <Box color="caution" fontSize="14px">
                {step.caution}
              </Box>
            ) : null}
          </Box>
        ))}
      </Box>
      <DamOff />
      {finish.fits.map((fit) => (
        <Box key={fit.figure_id} color={fit.fits ? "ink" : "caution"} marginTop="2">
          {fit.words}
        </Box>
      ))}
    </>
  );
}

function Faces({ finish: { faces } }: { finish: Finishing }) {
  const { scene, keep, units } = useDocument();
  const { finish } = scene;
  return (
    <>
      <Title aside={areaText(faces.area_cm2, units)}>Faces</Title>
      <NumberField
        label="sand up to grit"
        value={finish.sand_to_grit}
        take={(v) => {
          keep({ ...scene, finish: { ...finish, sand_to_grit: Math.round(v) } }, "grit");
        }}
      />
      <Tick
        label="edge coat on the faces"
        value={finish.edge_coat}
        take={(edge_coat) => {
          keep({ ...scene, finish: { ...finish, edge_coat } }, "edge coat");
        }}
      />
      <Box as="table" width="100%" fontSize="14px" marginTop="2" aria-label="The sanding ladder">
        <thead>
          <tr style={{ color: "var(--soft)", textAlign: "left" }}>
            <th style={{ fontWeight: 400 }}>grit</th>
            <th style={{ fontWeight: 400, textAlign: "right" }}>minutes</th>
            <th style={{ fontWeight: 400, textAlign: "right" }}>sheets</th>
          </tr>
        </thead>
        <tbody>
          {faces.rungs.map((rung) => (
            <tr key={rung.grit}>
              <td>{rung.grit}</td>
              <td style={{ textAlign: "right" }}>{Math.round(rung.minutes)}</td>
              <td style={{ textAlign: "right" }}>{rung.sheets}</td>
            </tr>
          ))}
        </tbody>
      </Box>
      <Box as="dl" margin="0" marginTop="2">
        <Row label="to sand and polish">{faces.sanding_min} min</Row>
        <Row label="to coat instead">
          {faces.coat_min} min, {volumeText(faces.coat_ml, units)}, {faces.coat_waits_h} h free of dust
        </Row>
      </Box>
      <Caution>
        Dust of half-cured resin is worst: wait for full cure, sand wet, wear a respirator. Follow the maker&apos;s
        safety data sheet.
      </Caution>
    </>
  );
}

function Top({ finish }: { finish: Finishing }) {
  const { units } = useDocument();
  const { top } = finish;
  return (
    <>
      <Title>Top and edge</Title>
      <Box as="dl" margin="0">
        <Row label="dam off" known="demould">
          {whenText(finish.demould_at)}
        </Row>
        <Row label="lip to trim">{lengthText(finish.lip_mm, units, 1)}</Row>
        <Row label="gel for ripples">{volumeText(top.ripple_ml, units)}</Row>
        <Row label="patches that stay wet">
          {top.patches_count} of {areaText(top.patch_cm2, units)}
        </Row>
        <Row label="each stays wet">{Math.round(top.open_min)} min</Row>
        <Row label="clear after">{Math.round(top.clear_h)} h</Row>
        <Row label="gel for white water">{volumeText(top.white_ml, units)}</Row>
        <Row label="full cure">{finish.full_cure_d === null ? "-" : `${Math.round(finish.full_cure_d)} d`}</Row>
      </Box>
      <Rippled />
      <Box marginTop="3">
        <Title aside="to cut, at true size">Strips for the edge of the bed</Title>
        <Strips />
      </Box>
    </>
  );
}

/** The top as it is meant: how high and how long the ripples are, and how much of it is white water. */
function Rippled() {
  const { scene, keep } = useDocument();
  const { finish } = scene;
  const top = finish.top ?? { ripple_mm: 0, ripple_length_mm: 15, white_fraction: 0 };
  const put = (change: Partial<typeof top>) => {
    keep({ ...scene, finish: { ...finish, top: { ...top, ...change } } }, "top of the piece");
  };
  return (
    <Box marginTop="3">
      <Title aside="as the look shows it">Ripples</Title>
      <LengthField
        label="height of ripples"
        value={top.ripple_mm ?? 0}
        take={(ripple_mm) => {
          put({ ripple_mm });
        }}
      />
      <LengthField
        label="from crest to crest"
        value={top.ripple_length_mm ?? 15}
        take={(ripple_length_mm) => {
          put({ ripple_length_mm });
        }}
      />
      <NumberField
        label="white water"
        unit="%"
        value={Math.round(100 * (top.white_fraction ?? 0))}
        take={(share) => {
          put({ white_fraction: share / 100 });
        }}
      />
    </Box>
  );
}
