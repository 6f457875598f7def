import { useState } from "react";

import { BeginPiece } from "../features/begin";
import { localNow } from "../units/display";
import { addScene } from "./bring-scene";
import { PlainPage } from "./plain-page";

/** From an idea to a plan. */
export default function BeginPage() {
  const [now] = useState(localNow);
  return (
    <PlainPage title="Begin a piece">
      <BeginPiece now={now} add={addScene} />
    </PlainPage>
  );
}
