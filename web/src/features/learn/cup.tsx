import { Box } from "@chakra-ui/react";
import { useMutation } from "@tanstack/react-query";
import { useState } from "react";

import { ask } from "../../api/ask";
import { api } from "../../api/client";
import type { BottleWhole } from "../../api/types";
import { useDocument } from "../../desk/document";
import { LengthField, MassField, TemperatureField } from "../../desk/fields";
import { BringFile } from "../../ui/bring-file";
import { Caution } from "../../ui/caution";
import { Deed } from "../../ui/pill";
import { Problem } from "../../ui/problem";
import { Choice, Tick } from "../../ui/row";
import { Curve } from "./curve";

/** A cup of a bottle and its thermometer's file: what it tells, and the word to keep it. */
export function CupTest({ resin, heard }: { resin: string; heard: (whole: BottleWhole) => void }) {
  const { units } = useDocument();
  const [setting, setSetting] = useState({ mass_g: 100, wrap_mm: 0, lid: false, mix_c: 23, room_c: 22 });
  const [scale, setScale] = useState<"" | "c" | "f">("");
  const [log, setLog] = useState<string | null>(null);
  const body = (text: string) => ({
    resin_id: resin,
    setting: { ...setting, mixed_at_h: 0 },
    log: text,
    scale: scale === "" ? null : scale,
  });
  const fit = useMutation({ mutationFn: (text: string) => ask(api.POST("/api/learn/cup", { body: body(text) })) });
  const keep = useMutation({
    mutationFn: (text: string) => ask(api.POST("/api/bottles/cups", { body: body(text) })),
    onSuccess: (whole) => {
      setLog(null);
      fit.reset();
      heard(whole);
    },
  });
  const set = (change: Partial<typeof setting>) => {
    setSetting({ ...setting, ...change });
    fit.reset();
  };
  return (
    <Box role="group" aria-label="A cup test">
      <MassField
        label="in the cup"
        value={setting.mass_g}
        take={(mass_g) => {
          set({ mass_g });
        }}
      />
      <LengthField
        label="foam around it"
        value={setting.wrap_mm}
        take={(wrap_mm) => {
          set({ wrap_mm });
        }}
      />
      <Tick
        label="lid of foam"
        value={setting.lid}
        take={(lid) => {
          set({ lid });
        }}
      />
      <TemperatureField
        label="mixed at"
        value={setting.mix_c}
        take={(mix_c) => {
          set({ mix_c });
        }}
      />
      <TemperatureField
        label="room, if not logged"
        value={setting.room_c}
        take={(room_c) => {
          set({ room_c });
        }}
      />
      <Choice
        label="degrees of the file"
        value={scale}
        options={[
          ["", "as it says"],
          ["c", "°C"],
          ["f", "°F"],
        ]}
        take={(value) => {
          setScale(value as "" | "c" | "f");
        }}
      />
      <BringFile
        label="Log of the cup"
        accept=".csv,.txt,.tsv,text/*"
        take={(file) => {
          void file.text().then((text) => {
            setLog(text);
            fit.mutate(text);
          });
        }}
      >
        bring the thermometer&apos;s file
      </BringFile>
      {fit.isPending ? <Box color="soft">Fitting ...</Box> : null}
      <Problem>{fit.error?.message ?? keep.error?.message}</Problem>
      {fit.data && log !== null ? (
        <Box role="status" marginTop="2">
          <Curve fit={fit.data} units={units} />
          <Box>{fit.data.words.join(" ")}</Box>
          {fit.data.merges ? (
            <Deed
              marginTop="2"
              loading={keep.isPending}
              onClick={() => {
                keep.mutate(log);
              }}
            >
              Teach the bottle
            </Deed>
          ) : null}
        </Box>
      ) : null}
      <Caution>
        Outdoors or well aired, on a heat-proof tray, not in the hand. Mind the maker&apos;s safety data sheet.
      </Caution>
    </Box>
  );
}
