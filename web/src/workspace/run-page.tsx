import { useParams } from "react-router";

import { BenchRun } from "../features/run";

/** A run, full screen. */
export default function RunPage() {
  const id = useParams().runId ?? "";
  return <BenchRun key={id} id={id} />;
}
