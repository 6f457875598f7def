import { Box, Flex } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { type KeyboardEvent, useState } from "react";

import { ask } from "../../api/ask";
import { api } from "../../api/client";
import type { Scene, Stand } from "../../api/types";
import { useDocument } from "../../desk/document";
import { useStory } from "../../desk/story";
import { useSize } from "../../sounding/size";
import { useDrag } from "../../ui/drag";
import { Word } from "../../ui/pill";
import { Problem } from "../../ui/problem";
import { Slide } from "../../ui/slide";
import { lengthText } from "../../units/display";
import { Fooling } from "./fooling";
import { Eye, Hours } from "./stand-fields";
import { keyed, useStand, walked } from "./stand";
import { Stills } from "./stills";
import { useLook } from "./use-look";

const ASPECT = 1.6;
const TURN_PER_PX = 0.4;
const RISE_PER_PX = 0.25;

/** The piece as it will stand on its shelf, from where one likes; beside what it was, or beside a photograph. */
export function LookView() {
  const { scene, work, trial } = useDocument();
  const { tank } = scene;
  const presets = useQuery({
    queryKey: ["look-presets", tank.inner_width_mm, tank.inner_behind_mm, tank.fill_height_mm],
    staleTime: Infinity,
    queryFn: () => ask(api.POST("/api/look/presets", { body: scene })),
  });
  const [stand, setStand] = useStand(work.id, presets.data?.[0]?.stand);
  const [held, setHeld] = useState<Scene | null>(null);
  const beside = trial ? work.document : held;
  const look = useLook(scene, stand);
  const before = useLook(beside, beside ? stand : null);
  const [photograph, setPhotograph] = useState<number | null>(null);
  const other = photograph === null ? (beside ? before.address : null) : `/api/entries/${photograph}/small`;
  return (
    <Box minHeight="0" overflowY="auto" paddingX="16px" paddingBottom="16px" as="section" aria-label="Look">
      {stand ? (
        <>
          <Picture
            stand={stand}
            take={setStand}
            address={look.address}
            other={other}
            otherWord={photograph === null ? "before" : "photograph"}
          />
          <Flex gap="2" rowGap="0" wrap="wrap" align="baseline" marginTop="4px">
            {presets.data?.map((one) => (
              <Word
                key={one.word}
                onClick={() => {
                  setStand({ ...one.stand, hour: stand.hour, lamp_in: stand.lamp_in });
                }}
              >
                {one.word}
              </Word>
            ))}
            <Hours stand={stand} take={setStand} />
            <Box as="span" color="soft" fontStyle="italic" marginLeft="auto" role="status" aria-live="off">
              {look.state === "clear" ? "clear" : "clearing up ..."}
            </Box>
          </Flex>
          <Problem>{look.problem}</Problem>
          <Flex gap="6" rowGap="1" wrap="wrap" align="flex-start" marginTop="6px">
            <Box width="236px" flexShrink="0">
              <Eye stand={stand} take={setStand} />
              <Beside
                held={held !== null}
                hold={() => {
                  setHeld(held ? null : scene);
                }}
                photograph={photograph}
                choose={setPhotograph}
              />
              <Stills stand={stand} />
            </Box>
            <Box flex="1" minWidth="240px">
              <Fooling stand={stand} />
            </Box>
          </Flex>
        </>
      ) : (
        <Box padding="12" color="soft">
          {presets.error ? <Problem>{presets.error.message}</Problem> : "Setting it on its shelf ..."}
        </Box>
      )}
    </Box>
  );
}

interface Shown {
  stand: Stand;
  take: (stand: Stand) => void;
  address: string | null;
  other: string | null;
  otherWord: string;
}

/** The picture, walked round by dragging and keys; a slider parts it from the other one. */
function Picture({ stand, take, address, other, otherWord }: Shown) {
  const { scene, units } = useDocument();
  const [box, size] = useSize();
  const [share, setShare] = useState(50);
  const middle = scene.tank.fill_height_mm / 2;
  const drag = useDrag((right, down) => {
    take(walked(stand, middle, { turn: -right * TURN_PER_PX, rise: down * RISE_PER_PX }));
  });
  const press = (event: KeyboardEvent) => {
    const next = keyed(stand, middle, event.key);
    if (!next) return;
    event.preventDefault();
    take(next);
  };
  return (
    <Box ref={box} width="100%" maxWidth="min(960px, max(520px, calc((100vh - 392px) * 1.6)))">
      <Box
        position="relative"
        bg="wash"
        cursor="grab"
        touchAction="none"
        tabIndex={0}
        role="img"
        aria-label={`The piece on its shelf: the eye ${Math.round(stand.azimuth_deg)} degrees round, ${lengthText(stand.eye_height_mm, units)} above the shelf, ${lengthText(stand.distance_mm, units)} away. Arrow keys walk, plus and minus come closer and go back`}
        style={{ height: size.width / ASPECT }}
        onKeyDown={press}
        {...drag}
      >
        {address ? <Whole address={address} name="as it is now" /> : null}
        {other ? (
          <Box position="absolute" inset="0" style={{ clipPath: `inset(0 ${100 - share}% 0 0)` }}>
            <Whole address={other} name={otherWord} />
          </Box>
        ) : null}
        {other ? (
          <Box position="absolute" top="0" bottom="0" width="1px" bg="paper" style={{ left: `${share}%` }} />
        ) : null}
      </Box>
      {other ? (
        <Slide label={`From what it is now to ${otherWord}`} value={share} take={setShare} width="100%" />
      ) : null}
    </Box>
  );
}

function Whole({ address, name }: { address: string; name: string }) {
  return (
    <img
      src={address}
      alt={name}
      draggable={false}
      style={{ position: "absolute", inset: 0, width: "100%", height: "100%", objectFit: "contain" }}
    />
  );
}

interface Besides {
  held: boolean;
  hold: () => void;
  photograph: number | null;
  choose: (photograph: number | null) => void;
}

/** What the piece is laid beside: how it is now, held while edits go on, or a photograph of the log. */
function Beside({ held, hold, photograph, choose }: Besides) {
  const photographs = (useStory().entries.data ?? []).filter((one) => one.photograph);
  return (
    <Box marginTop="2">
      <Word paddingLeft="0" onClick={hold} aria-pressed={held}>
        {held ? "let go what was held" : "hold this, to see edits beside it"}
      </Word>
      {photographs.map((one) => (
        <Word
          key={one.id}
          paddingLeft="0"
          aria-pressed={photograph === one.id}
          onClick={() => {
            choose(photograph === one.id ? null : one.id);
          }}
        >
          {photograph === one.id ? "take away" : "beside"} {one.text || one.photograph?.name}
        </Word>
      ))}
    </Box>
  );
}
