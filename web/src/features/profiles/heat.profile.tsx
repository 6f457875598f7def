import { Band, Curve, Limit, Profile } from "../../sounding/profile";
import { between, span } from "../../sounding/scales";
import { temperatureFigure, temperatureText, temperatureUnit } from "../../units/display";
import { useCursor } from "../../desk/cursor";
import { useDocument } from "../../desk/document";
import { peakBand, useDrawn } from "../../desk/drawn";
import { Ends, type ProfilePart } from "./profile-part";

const HOTTEST_SHOWN_C = 120;

/** Peak by level with its band, the moment that is looked at, and what breaks first. */
function Heat({ x, width }: { x: number; width: number }) {
  const { outcome, units } = useDocument();
  const { heat, limits } = outcome;
  const band = peakBand(outcome, useDrawn());
  const limit = limits.reduce((least, one) => (one.limit_c < least.limit_c ? one : least));
  const [low, top] = span([...heat.high_c, ...heat.low_c], [18, limit.limit_c + 8]);
  const high = Math.min(HOTTEST_SHOWN_C, top);
  const frame = { depths: heat.depth_mm, domain: [low, high] as const, width };
  const others = limits.filter(
    (one) => one !== limit && one.limit_c < high && Math.abs(one.limit_c - limit.limit_c) > 1,
  );
  return (
    <Profile x={x} width={width} title="heat" under={`peak ${temperatureUnit(units)}, now`}>
      <Band {...frame} low={band.low_c} high={band.high_c} ink="var(--caution-wash)" />
      {others.map((one) => (
        <Limit
          key={`${one.what} ${one.pour_id ?? ""}`}
          at={one.limit_c}
          domain={[low, high]}
          width={width}
          hint={`${one.name}, ${temperatureText(one.limit_c, units)}`}
        />
      ))}
      <Limit
        at={limit.limit_c}
        domain={[low, high]}
        width={width}
        word={limit.name.replace(/^hot /, "")}
        hint={`${limit.name}, ${temperatureText(limit.limit_c, units)}`}
      />
      <Now frame={frame} />
      <Curve {...frame} values={heat.peak_c} ink="var(--ink)" weight={2} />
      <Ends low={temperatureFigure(low, units)} high={temperatureFigure(high, units)} width={width} />
    </Profile>
  );
}

function Now({ frame }: { frame: { depths: readonly number[]; domain: readonly [number, number]; width: number } }) {
  const { heat, history } = useDocument().outcome;
  const { at_h } = useCursor();
  const now = heat.depth_mm.map((_, level) =>
    between(
      history.at_h,
      history.hottest_c.map((row) => row[level] ?? null),
      at_h,
    ),
  );
  return <Curve {...frame} values={now} ink="var(--depth)" weight={1.3} />;
}

export const profile: ProfilePart = {
  on: { piece: { order: 1, width: 84 }, cure: { order: 1, width: 72 } },
  Part: Heat,
};
