import { useChoice } from "../../desk/choice";
import { useDocument } from "../../desk/document";
import { Flex } from "@chakra-ui/react";

import { Word } from "../../ui/pill";
import { Choice } from "../../ui/row";
import { LengthField } from "../../desk/fields";
import { withPour } from "../../desk/edits";

const KINDS = [
  ["glitter", "glitter"],
  ["mica", "mica"],
  ["sand", "sand"],
  ["coffee_grounds", "coffee grounds"],
] as const;

/** Grains stirred into the chosen pour; how far they sink is computed. */
export function Grains() {
  const { scene, keep } = useDocument();
  const { pourNumber } = useChoice();
  const grains = scene.pours[pourNumber - 1]?.inclusions ?? [];
  type Grain = (typeof grains)[number];
  const set = (inclusions: Grain[]) => {
    keep(withPour(scene, pourNumber, { inclusions }), `grains in pour ${pourNumber}`);
  };
  const free = KINDS.filter(([kind]) => !grains.some((one) => one.kind === kind));
  return (
    <>
      {grains.map((one, index) => (
        <Flex key={one.kind} direction="column">
          <Choice
            label="grains of"
            value={one.kind}
            options={KINDS.filter(([kind]) => kind === one.kind || !grains.some((each) => each.kind === kind))}
            take={(kind) => {
              set(grains.map((each, at) => (at === index ? { ...each, kind: kind as Grain["kind"] } : each)));
            }}
          />
          <LengthField
            label="size of the grains"
            value={one.diameter_mm}
            take={(diameter_mm) => {
              set(grains.map((each, at) => (at === index ? { ...each, diameter_mm } : each)));
            }}
          />
          <Word
            fontSize="14px"
            paddingLeft="0"
            onClick={() => {
              set(grains.filter((_, at) => at !== index));
            }}
          >
            without the {one.kind.replace("_", " ")}
          </Word>
        </Flex>
      ))}
      {free[0] && grains.length < 4 ? (
        <Word
          fontSize="14px"
          paddingLeft="0"
          textDecoration="underline"
          onClick={() => {
            const kind = free[0]?.[0];
            if (kind) set([...grains, { kind, diameter_mm: 0.2 }]);
          }}
        >
          stir grains in
        </Word>
      ) : null}
    </>
  );
}
