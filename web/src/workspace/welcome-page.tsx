import { useParams } from "react-router";

import { Welcome } from "../features/people";

/** Where an invitation leads. */
export default function WelcomePage() {
  return <Welcome token={useParams().token ?? ""} />;
}
