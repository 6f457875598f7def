import { useParams } from "react-router";

import { ShownPiece } from "../features/people";

/** Where a link leads. */
export default function ShownPage() {
  return <ShownPiece token={useParams().token ?? ""} />;
}
