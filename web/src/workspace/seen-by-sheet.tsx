import { SeenBy } from "../features/people";

/** Who sees a piece, over the page. */
export default function SeenBySheet(props: { sceneId: number; name: string; close: () => void }) {
  return <SeenBy {...props} />;
}
