import { scaleLinear } from "d3-scale";

import { Label } from "../../sounding/label";
import { Band, Curve, Limit, Profile } from "../../sounding/profile";
import { apart, between, nearest, span, useDepth } from "../../sounding/scales";
import { lengthText, temperatureFigure } from "../../units/display";
import { useDesk } from "../workspace";
import { sightRows } from "./sights";

const GAP = 14;
const HEAT = 84;
const LIGHT = 72;
const SIGHT = 96;
export const PROFILES_WIDTH = HEAT + LIGHT + SIGHT + 2 * GAP;
const HOTTEST_SHOWN_C = 120;

/** Heat, light and sight, against the same depth as the section. */
export function Profiles({ x }: { x: number }) {
  return (
    <g>
      <Heat x={x} />
      <Light x={x + HEAT + GAP} />
      <Sight x={x + HEAT + LIGHT + 2 * GAP} />
    </g>
  );
}

function Heat({ x }: { x: number }) {
  const { outcome, units, at_h } = useDesk();
  const { heat, limits, history } = outcome;
  const limit = limits.reduce((least, one) => (one.limit_c < least.limit_c ? one : least));
  const [low, top] = span([...heat.high_c, ...heat.low_c], [18, limit.limit_c + 8]);
  const high = Math.min(HOTTEST_SHOWN_C, top);
  const now = heat.depth_mm.map((_, level) => between(history.at_h, history.hottest_c.map((row) => row[level] ?? null), at_h));
  const frame = { depths: heat.depth_mm, domain: [low, high] as const, width: HEAT };
  return (
    <Profile x={x} width={HEAT} title="heat" under={`peak °${units.temperature === "f" ? "F" : "C"}, now`}>
      <Band {...frame} low={heat.low_c} high={heat.high_c} ink="var(--caution-wash)" />
      <Limit at={limit.limit_c} domain={[low, high]} width={HEAT} word={limit.name.replace(/^hot /, "")} />
      <Curve {...frame} values={now} ink="var(--depth)" weight={1.3} />
      <Curve {...frame} values={heat.peak_c} ink="var(--ink)" weight={2} />
      <Ends low={temperatureFigure(low, units)} high={temperatureFigure(high, units)} width={HEAT} />
    </Profile>
  );
}

function Light({ x }: { x: number }) {
  const { outcome } = useDesk();
  const { water } = outcome;
  const frame = { depths: water.depth_mm, domain: [0, 1] as const, width: LIGHT };
  return (
    <Profile x={x} width={LIGHT} title="light" under="left, %">
      <Curve {...frame} values={water.red_fraction} ink="var(--red)" />
      <Curve {...frame} values={water.green_fraction} ink="var(--green)" />
      <Curve {...frame} values={water.blue_fraction} ink="var(--blue)" />
      <Ends low="0" high="100" width={LIGHT} />
    </Profile>
  );
}

function Sight({ x }: { x: number }) {
  const desk = useDesk();
  const { depth, top, bottom } = useDepth();
  const rows = sightRows(desk.outcome.sights);
  const across = scaleLinear([0, 1], [0, SIGHT]);
  const places = apart(rows.map((row) => depth(row.depth_mm)), 24, top + 16, bottom - 6);
  return (
    <Profile x={x} width={SIGHT} title="sight" under="of figures">
      {rows.map((row, index) => {
        const y = places[index] ?? 0;
        return (
          <g key={row.name} className="press" onClick={() => { desk.chooseFigure(row.figureIds[0] ?? null); }}>
            <Label x={4} y={y - 4} fontSize={13} fill={row.lost ? "var(--watch)" : "var(--ink)"}>{row.name}</Label>
            <rect x={0} y={y - 1} width={across(row.contrast_fraction)} height={4} fill={row.lost ? "var(--watch)" : "var(--ink)"} />
          </g>
        );
      })}
      <Ends low="0" high="100" width={SIGHT} />
    </Profile>
  );
}

function Ends({ low, high, width }: { low: string; high: string; width: number }) {
  const { bottom } = useDepth();
  return (
    <g fill="var(--soft)">
      <Label x={0} y={bottom + 14} fontSize={13}>{low}</Label>
      <Label x={width} y={bottom + 14} fontSize={13} textAnchor="end">{high}</Label>
    </g>
  );
}

/** What the gondola reads at its depth, on each profile, as words. */
export function useReadings(): { word: string; value: string; chip?: string }[] {
  const desk = useDesk();
  const { heat, water, history, pours, sights } = desk.outcome;
  const { units, depth_mm, at_h } = desk;
  const level = nearest(heat.depth_mm, depth_mm);
  const at = nearest(water.depth_mm, depth_mm);
  const pour = pours.find((one) => depth_mm >= one.top_depth_mm && depth_mm <= one.bottom_depth_mm) ?? pours.at(-1);
  const figure = (value: number | undefined) => (value === undefined ? "-" : temperatureFigure(value, units));
  const degree = units.temperature === "f" ? "°F" : "°C";
  const cure = between(history.at_h, history.least_degree.map((row) => row[level] ?? null), at_h);
  const near = sights.filter((one) => depth_mm >= one.top_depth_mm && depth_mm <= one.bottom_depth_mm);
  const percent = (value: number | undefined) => (value === undefined ? "-" : `${Math.round(value * 100)}`);
  const band = heat.high_c[level] !== undefined && heat.low_c[level] !== undefined
    ? `, ${figure(heat.low_c[level])} to ${figure(heat.high_c[level])}` : "";
  return [
    { word: "pour", value: pour ? `${pour.number}, ${pour.joint}` : "-" },
    { word: "peak", value: heat.peak_c[level] === undefined ? "bed" : `${figure(heat.peak_c[level])} ${degree}${band}` },
    { word: "cured now", value: cure === null ? "not poured yet" : `${percent(cure)} %` },
    { word: "light left", value: `${percent(water.light_fraction[at])} %: R ${percent(water.red_fraction[at])}, G ${percent(water.green_fraction[at])}, B ${percent(water.blue_fraction[at])}` },
    { word: "back wall", value: water.backdrop_srgb[at] ?? "", chip: water.backdrop_srgb[at] ?? "" },
    { word: "figures here", value: near.length ? near.slice(0, 3).map((one) => `${one.name} ${percent(one.contrast_fraction)} %`).join(", ") : "none" },
  ];
}

/** The heat profile as a table, for who does not see the plot. */
export function HeatTable() {
  const { outcome, units } = useDesk();
  const { heat } = outcome;
  return (
    <table>
      <caption>Peak temperature against depth</caption>
      <thead><tr><th>depth</th><th>pour</th><th>peak</th></tr></thead>
      <tbody>
        {heat.depth_mm.map((depth, index) => (
          <tr key={depth}>
            <td>{lengthText(depth, units)}</td><td>{heat.pour_number[index]}</td>
            <td>{temperatureFigure(heat.peak_c[index] ?? 0, units)}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
