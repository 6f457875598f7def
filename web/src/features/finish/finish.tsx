import { useDocument } from "../../desk/document";
import { Box } from "@chakra-ui/react";

import { Caution } from "../../ui/caution";
import { Row, Tick, Title } from "../../ui/row";
import { NumberField } from "../../desk/fields";
import { whenText } from "../../units/display";

export function FinishInspector() {
  const { scene, keep, outcome } = useDocument();
  const { finish } = scene;
  return (
    <>
      <Title>Finish</Title>
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
      <Box as="dl" margin="0">
        <Row label="dam off" known="demould">
          {whenText(outcome.whole.demould_at)}
        </Row>
        <Row label="full cure">
          {outcome.whole.full_cure_d === null ? "-" : `${Math.round(outcome.whole.full_cure_d)} d`}
        </Row>
      </Box>
      <Caution>
        Dust of half-cured resin is worst: wait for full cure, sand wet, wear a respirator. Follow the maker's safety
        data sheet.
      </Caution>
    </>
  );
}
