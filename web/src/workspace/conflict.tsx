import type { SceneWork } from "../desk/use-scene";
import { Deed, Pill } from "../ui/pill";
import { Strip } from "../ui/strip";

/** Somebody saved first: say so, and let the person choose; both states stay in the log. */
export function Conflict({ work }: { work: SceneWork }) {
  if (!work.conflict) return null;
  return (
    <Strip
      role="alertdialog"
      aria-label="Changed elsewhere"
      position="fixed"
      insetX="0"
      lead="Changed elsewhere."
      deeds={
        <>
          <Deed onClick={work.takeTheirs}>show theirs</Deed>
          <Pill onClick={work.putMineOnTop}>put mine on top</Pill>
        </>
      }
    >
      {work.conflict.message}
    </Strip>
  );
}
