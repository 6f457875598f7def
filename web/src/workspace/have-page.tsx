import { WhatYouHave } from "../features/begin";
import { PlainPage } from "./plain-page";

/** What the person has, once for all pieces. */
export default function HavePage() {
  return (
    <PlainPage title="What you have">
      <WhatYouHave />
    </PlainPage>
  );
}
