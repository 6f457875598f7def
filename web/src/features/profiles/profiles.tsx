import { scaleLinear } from "d3-scale";

import { Label } from "../../sounding/label";
import { Band, Curve, Limit, Profile } from "../../sounding/profile";
import { apart, between, nearest, span, useDepth } from "../../sounding/scales";
import { temperatureFigure } from "../../units/display";
import { type Stage, useDesk } from "../workspace";
import { sightRows } from "./sights";

const GAP = 14;
const CLOSE = 9;
const HEAT = 84;
const LIGHT = 72;
const SIGHT = 96;
const SEAMS = 84;
const CURED = 48;
const GEL = 38;
const BUBBLES = 46;
const BOND = 40;
const HEAT_BESIDE = LIGHT;
export const PROFILES_WIDTH = HEAT + LIGHT + SIGHT + 2 * GAP;
const HOTTEST_SHOWN_C = 120;

/** Heat, light and sight, against the same depth as the section. */
export function Profiles({ x, stage }: { x: number; stage: Stage }) {
  if (stage === "pours" || stage === "bench") {
    return (
      <g>
        <Heat x={x} width={HEAT_BESIDE} />
        <Cured x={x + HEAT_BESIDE + CLOSE} />
        <Gel x={x + HEAT_BESIDE + CURED + 2 * CLOSE} />
        <Bonds x={x + HEAT_BESIDE + CURED + GEL + 3 * CLOSE} />
        <Bubbles x={x + HEAT_BESIDE + CURED + GEL + BOND + 4 * CLOSE} />
      </g>
    );
  }
  if (stage === "water") {
    return (
      <g>
        <Light x={x} />
        <Seams x={x + LIGHT + GAP} />
        <Sight x={x + LIGHT + SEAMS + 2 * GAP} />
      </g>
    );
  }
  return (
    <g>
      <Heat x={x} />
      <Light x={x + HEAT + GAP} />
      <Sight x={x + HEAT + LIGHT + 2 * GAP} />
    </g>
  );
}

function Heat({ x, width = HEAT }: { x: number; width?: number }) {
  const { outcome, units, at_h } = useDesk();
  const { heat, limits, history } = outcome;
  const limit = limits.reduce((least, one) => (one.limit_c < least.limit_c ? one : least));
  const [low, top] = span([...heat.high_c, ...heat.low_c], [18, limit.limit_c + 8]);
  const high = Math.min(HOTTEST_SHOWN_C, top);
  const now = heat.depth_mm.map((_, level) => between(history.at_h, history.hottest_c.map((row) => row[level] ?? null), at_h));
  const frame = { depths: heat.depth_mm, domain: [low, high] as const, width };
  const others = limits.filter((one) => one !== limit && one.limit_c < high && Math.abs(one.limit_c - limit.limit_c) > 1);
  return (
    <Profile x={x} width={width} title="heat" under={`peak °${units.temperature === "f" ? "F" : "C"}, now`}>
      <Band {...frame} low={heat.low_c} high={heat.high_c} ink="var(--caution-wash)" />
      {others.map((one) => <Limit key={`${one.name}${one.limit_c}`} at={one.limit_c} domain={[low, high]} width={width} hint={`${one.name}, ${temperatureFigure(one.limit_c, units)}`} />)}
      <Limit at={limit.limit_c} domain={[low, high]} width={width} word={limit.name.replace(/^hot /, "")} hint={`${limit.name}, ${temperatureFigure(limit.limit_c, units)}`} />
      <Curve {...frame} values={now} ink="var(--depth)" weight={1.3} />
      <Curve {...frame} values={heat.peak_c} ink="var(--ink)" weight={2} />
      <Ends low={temperatureFigure(low, units)} high={temperatureFigure(high, units)} width={width} />
    </Profile>
  );
}

/** How far each level is cured at the scrubbed moment, with the tack window. */
function Cured({ x }: { x: number }) {
  const { outcome, at_h, scene } = useDesk();
  const { heat, history } = outcome;
  const now = heat.depth_mm.map((_, level) => between(history.at_h, history.least_degree.map((row) => row[level] ?? null), at_h));
  const resin = scene.resins.find((one) => one.id === scene.pours[0]?.resin_id);
  return (
    <Profile x={x} width={CURED} title="cured" under="%, now">
      {resin ? <TackBand low={resin.gel_degree} high={resin.tack_free_degree} /> : null}
      <Curve depths={heat.depth_mm} domain={[0, 1]} width={CURED} values={now} ink="var(--set)" weight={2.2} />
      <Ends low="0" high="100" width={CURED} />
    </Profile>
  );
}

function TackBand({ low, high }: { low: number; high: number }) {
  const { top, bottom } = useDepth();
  return <rect x={low * CURED} y={top} width={(high - low) * CURED} height={bottom - top} fill="var(--set-pale)" opacity={0.6} />;
}

/** Hours from its own pour to gel, by level. */
function Gel({ x }: { x: number }) {
  const { outcome } = useDesk();
  const { heat } = outcome;
  const hours = heat.gel_h;
  const [, most] = span(hours, [0, 6]);
  return (
    <Profile x={x} width={GEL} title="gel" under="after, h">
      <Curve depths={heat.depth_mm} domain={[0, most]} width={GEL} values={hours} ink="var(--ink)" />
      <Ends low="0" high={String(Math.round(most))} width={GEL} />
    </Profile>
  );
}

const BOND_INK = [["too early", "var(--caution)"], ["after", "var(--watch)"]] as const;

/** What is left to bond chemically at each joint, in the ink of whether it comes in time. */
function Bonds({ x }: { x: number }) {
  const { outcome } = useDesk();
  const { depth } = useDepth();
  return (
    <Profile x={x} width={BOND} title="bond" under="free, %">
      {outcome.pours.map((pour) => (pour.bond ? (
        <rect key={pour.id} x={0} y={depth(pour.bottom_depth_mm) - 3} width={Math.max(1.5, pour.bond.bond_fraction * BOND)} height={6} fill={BOND_INK.find(([word]) => pour.joint.startsWith(word))?.[1] ?? "var(--set)"}>
          <title>{`under pour ${pour.number}: ${pour.joint}; ${Math.round(pour.bond.bond_fraction * 100)} % still free to bond`}</title>
        </rect>
      ) : null))}
      <Ends low="0" high="100" width={BOND} />
    </Profile>
  );
}

/** The smallest bubble that still leaves before gel. */
function Bubbles({ x }: { x: number }) {
  const { outcome } = useDesk();
  const { bubbles } = outcome;
  const [, most] = span(bubbles.escape_diameter_mm, [0, 0.12]);
  return (
    <Profile x={x} width={BUBBLES} title="bubbles" under="out, mm">
      <Limit at={0.1} domain={[0, most]} width={BUBBLES} word="seen" />
      <Curve depths={bubbles.depth_mm} domain={[0, most]} width={BUBBLES} values={bubbles.escape_diameter_mm} ink="var(--depth)" weight={2} />
      <Ends low="0" high={most.toFixed(2)} width={BUBBLES} />
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

/** Colour steps at the layer lines, by how they are seen. */
function Seams({ x }: { x: number }) {
  const { outcome } = useDesk();
  const { depth } = useDepth();
  const steps = outcome.pours.flatMap((pour) => (pour.seam ? [pour.seam] : []));
  const most = Math.max(5, ...steps.map((one) => one.seam_de00));
  return (
    <Profile x={x} width={SEAMS} title="lines" under="step, dE">
      <Limit at={2} domain={[0, most]} width={SEAMS} word="seen" />
      {steps.map((one) => (
        <rect key={one.depth_mm} x={0} y={depth(one.depth_mm) - 3} width={(one.seam_de00 / most) * SEAMS} height={6} fill={one.seen === "a band" ? "var(--caution)" : one.seen === "seen" ? "var(--watch)" : "var(--soft)"}>
          <title>{`${one.seam_de00.toFixed(1)}, ${one.seen}`}</title>
        </rect>
      ))}
      <Ends low="0" high={most.toFixed(0)} width={SEAMS} />
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
  const { heat, water, history, pours, sights, bubbles } = desk.outcome;
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
    { word: "smallest out", value: bubbleText(bubbles.escape_diameter_mm[nearest(bubbles.depth_mm, depth_mm)]) },
    { word: "light left", value: `${percent(water.light_fraction[at])} %: R ${percent(water.red_fraction[at])}, G ${percent(water.green_fraction[at])}, B ${percent(water.blue_fraction[at])}` },
    { word: "back wall", value: `${water.backdrop_srgb[at] ?? ""}${(water.off_display_de00[at] ?? 0) > 2 ? ", display cannot show it" : ""}`, chip: water.backdrop_srgb[at] ?? "" },
    { word: "sighted to", value: (water.sighting_mm[at] ?? 9999) > 2000 ? "all through" : `${Math.round(water.sighting_mm[at] ?? 0)} mm behind` },
    { word: "figures here", value: near.length ? near.slice(0, 3).map((one) => `${one.name} ${percent(one.contrast_fraction)} %`).join(", ") : "none" },
  ];
}

const bubbleText = (mm: number | null | undefined) => (mm === null || mm === undefined ? "none leave" : mm < 0.005 ? "all bubbles leave" : `bubbles over ${mm.toFixed(2)} mm`);
