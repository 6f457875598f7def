import { Box } from "@chakra-ui/react";
import { useState } from "react";

import type { BottleLog, BottleWhole, Units } from "../../api/types";
import { useDocument } from "../../desk/document";
import { Pill, Word } from "../../ui/pill";
import { Row } from "../../ui/row";
import { Curve } from "./curve";

const share = (factor: number) => `${factor >= 1 ? "+" : ""}${((factor - 1) * 100).toFixed(0)} %`;

/** What is held of a bottle, from what, and each number of its row that was learnt. */
export function Bottle({
  bottle,
  takeBack,
  use,
}: {
  bottle: BottleWhole;
  takeBack: (id: number, back: boolean) => void;
  use: () => void;
}) {
  const { units, scene } = useDocument();
  const [numbers, showNumbers] = useState(false);
  const standing = bottle.logs.some((log) => !log.withdrawn);
  const held = scene.resins.find((one) => one.id === bottle.key);
  const used = held?.k1_per_s === (bottle.numbers.k1_per_s?.[1] ?? held?.k1_per_s);
  return (
    <Box role="group" aria-label="What is held of this bottle">
      <Box as="dl" margin="0">
        {bottle.rate ? <Factor word="pace" told={bottle.rate} /> : null}
        {bottle.heat ? <Factor word="heat" told={bottle.heat} /> : null}
      </Box>
      {bottle.logs.length === 0 ? (
        <Box color="soft">Nothing is learnt of it yet: these are its row's own numbers.</Box>
      ) : null}
      {bottle.logs.map((log) => (
        <Log key={log.id} log={log} units={units} takeBack={takeBack} />
      ))}
      {standing && bottle.kind === "resin" && held ? (
        used ? (
          <Box color="soft">This scene pours it as it was learnt.</Box>
        ) : (
          <Pill tone="depth" onClick={use}>
            pour this scene with it
          </Pill>
        )
      ) : null}
      {Object.keys(bottle.numbers).length > 0 ? (
        <Word
          paddingLeft="0"
          aria-expanded={numbers}
          onClick={() => {
            showNumbers(!numbers);
          }}
        >
          numbers that its row gained
        </Word>
      ) : null}
      {numbers ? (
        <Box as="table" fontSize="14px" width="100%">
          <tbody>
            {Object.entries(bottle.numbers).map(([name, [was, now]]) => (
              <tr key={name}>
                <td>{name.replaceAll("_", " ")}</td>
                <td style={{ textAlign: "right" }}>{was?.toPrecision(3)}</td>
                <td style={{ textAlign: "right", fontWeight: 700 }}>{now?.toPrecision(3)}</td>
              </tr>
            ))}
          </tbody>
        </Box>
      ) : null}
    </Box>
  );
}

function Factor({ word, told }: { word: string; told: readonly number[] }) {
  const [middle = 1, low = 1, high = 1] = told;
  return (
    <Row label={word}>
      {share(middle)} ({share(low)} to {share(high)})
    </Row>
  );
}

function Log({
  log,
  units,
  takeBack,
}: {
  log: BottleLog;
  units: Units;
  takeBack: (id: number, back: boolean) => void;
}) {
  const [open, setOpen] = useState(false);
  return (
    <Box borderBottom="1px solid" borderColor="wash" paddingY="3px" opacity={log.withdrawn ? 0.6 : 1}>
      <Word
        paddingLeft="0"
        aria-expanded={open}
        onClick={() => {
          setOpen(!open);
        }}
      >
        {log.title}
        {log.withdrawn ? " (taken back)" : ""}
      </Word>
      <Word
        aria-label={`${log.withdrawn ? "Let count" : "Take back"} ${log.title}`}
        onClick={() => {
          takeBack(log.id, !log.withdrawn);
        }}
      >
        {log.withdrawn ? "let it count" : "take back"}
      </Word>
      {open && log.log ? (
        <>
          <Curve fit={log.log} units={units} />
          <Box fontSize="14px">{log.log.words.join(" ")}</Box>
        </>
      ) : null}
      {open && log.swatch ? <Box fontSize="14px">{log.swatch.words.join(" ")}</Box> : null}
      {open && log.drops ? (
        <Box fontSize="14px">
          One drop is {(log.drops.drop_g * 1000).toFixed(1)} mg ({(log.drops.low_g * 1000).toFixed(1)} to{" "}
          {(log.drops.high_g * 1000).toFixed(1)}).
        </Box>
      ) : null}
    </Box>
  );
}
