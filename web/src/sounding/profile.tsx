import { scaleLinear } from "d3-scale";
import { area, curveMonotoneY, line } from "d3-shape";
import type { ReactNode } from "react";

import { Label } from "./label";
import { useDepth } from "./scales";

/** One profile: a quantity across, depth down, on the shared depth axis. */
export function Profile(props: { x: number; width: number; title: string; under: string; children: ReactNode }) {
  const { top, bottom } = useDepth();
  return (
    <g transform={`translate(${props.x} 0)`} role="img" aria-label={`${props.title} against depth, ${props.under}`}>
      <Label x={0} y={top - 34} fontSize={16} fontWeight={700} fill="var(--ink)">
        {props.title}
      </Label>
      <Label x={0} y={top - 17} fontSize={13} fill="var(--soft)">
        {props.under}
      </Label>
      <rect x={0} y={top} width={props.width} height={bottom - top} fill="var(--plot)" stroke="var(--hair)" />
      {props.children}
    </g>
  );
}

/** A quantity against depth; levels without a value leave a gap. */
export function Curve(props: {
  depths: readonly number[];
  values: readonly (number | null)[];
  domain: readonly [number, number];
  width: number;
  ink: string;
  weight?: number;
}) {
  const { depth } = useDepth();
  const across = scaleLinear(props.domain, [0, props.width]).clamp(true);
  const points = props.depths.map((at, index) => ({ at, value: props.values[index] ?? null }));
  const path = line<(typeof points)[number]>()
    .defined((point) => point.value !== null)
    .x((point) => across(point.value ?? 0))
    .y((point) => depth(point.at))
    .curve(curveMonotoneY)(points);
  return <path d={path ?? ""} fill="none" stroke={props.ink} strokeWidth={props.weight ?? 1.8} />;
}

/** The spread of a quantity against depth. */
export function Band(props: {
  depths: readonly number[];
  low: readonly number[];
  high: readonly number[];
  domain: readonly [number, number];
  width: number;
  ink: string;
}) {
  const { depth } = useDepth();
  const across = scaleLinear(props.domain, [0, props.width]).clamp(true);
  const path = area<number>()
    .x0((_, index) => across(props.low[index] ?? 0))
    .x1((_, index) => across(props.high[index] ?? 0))
    .y((at) => depth(at))
    .curve(curveMonotoneY)([...props.depths]);
  return <path d={path ?? ""} fill={props.ink} />;
}

/** A limit, straight down; thinner where it is not named. */
export function Limit(props: {
  at: number;
  domain: readonly [number, number];
  width: number;
  word?: string;
  hint?: string;
}) {
  const { top, bottom } = useDepth();
  const across = scaleLinear(props.domain, [0, props.width]);
  const x = across(props.at);
  if (x < 0 || x > props.width) return null;
  const atEdge = x > props.width - 24;
  return (
    <g>
      <path
        d={`M${x} ${top}V${bottom}`}
        stroke="var(--caution)"
        strokeWidth={props.word ? 1 : 0.6}
        strokeDasharray={props.word ? "4 3" : "2 4"}
      >
        {props.hint ? <title>{props.hint}</title> : null}
      </path>
      {props.word ? (
        <Label
          x={atEdge ? x - 3 : x + 3}
          y={bottom - 5}
          fontSize={13}
          fontStyle="italic"
          fill="var(--caution)"
          textAnchor={atEdge ? "end" : "start"}
        >
          {props.word}
        </Label>
      ) : null}
    </g>
  );
}
