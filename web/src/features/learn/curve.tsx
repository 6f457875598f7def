import { scaleLinear } from "d3-scale";
import { line } from "d3-shape";

import type { LogFit, Units } from "../../api/types";
import { temperatureFigure, temperatureText, temperatureUnit } from "../../units/display";

const [WIDE, HIGH, LEFT, SOLE] = [212, 140, 28, 20];

/** A log as it was read, as it was fitted, and as the row alone would have it. */
export function Curve({ fit, units }: { fit: LogFit; units: Units }) {
  const { at_h, measured_c, fitted_c, row_c } = fit.curve;
  if (at_h.length < 2) return null;
  const all = [...measured_c, ...fitted_c, ...row_c];
  const x = scaleLinear([0, at_h.at(-1) ?? 1], [LEFT, WIDE]);
  const y = scaleLinear([Math.min(...all) - 0.5, Math.max(...all) + 0.5], [HIGH - SOLE, 6]);
  const path = (values: readonly number[]) =>
    line<number>(
      (index) => x(at_h[index] ?? 0),
      (index) => y(values[index] ?? 0),
    )(at_h.map((_, index) => index)) ?? "";
  return (
    <svg
      width={WIDE + 6}
      height={HIGH}
      role="img"
      aria-label={`Log over ${(at_h.at(-1) ?? 0).toFixed(0)} hours: warmest ${temperatureText(fit.peak_c, units)} after ${fit.peak_at_h} h`}
    >
      <path d={path(row_c)} fill="none" stroke="var(--soft)" strokeDasharray="4 3" />
      <path d={path(fitted_c)} fill="none" stroke="var(--caution)" strokeWidth={1.4} />
      {at_h.map((hours, index) => (
        <circle key={index} cx={x(hours)} cy={y(measured_c[index] ?? 0)} r={1.4} fill="var(--ink)" />
      ))}
      {y.ticks(4).map((tick) => (
        <text key={tick} x={LEFT - 4} y={y(tick) + 4} textAnchor="end" fontSize={13} fill="var(--soft)">
          {temperatureFigure(tick, units)}
        </text>
      ))}
      {x.ticks(5).map((tick) => (
        <text key={tick} x={x(tick)} y={HIGH - 4} textAnchor="middle" fontSize={13} fill="var(--soft)">
          {tick}
        </text>
      ))}
      <text x={WIDE} y={16} textAnchor="end" fontSize={13} fill="var(--soft)">
        {temperatureUnit(units)} over hours
      </text>
    </svg>
  );
}
