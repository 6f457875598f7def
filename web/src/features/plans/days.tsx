import { Box } from "@chakra-ui/react";
import { scaleLinear } from "d3-scale";

import { days } from "../../desk/days";
import { Label } from "../../sounding/label";
import type { Scale } from "../../sounding/scales";
import { useSize } from "../../sounding/size";
import { whenText } from "../../units/display";
import type { Laid } from "./use-laid";

const HEIGHT = 196;
const TOP = 40;
const MOST_ROW = 16;

/** The days of both plans: the own one outlined, the other filled; in each row the tack and the pour that meets it. */
export function DaysBeside({ own, other }: { own: Laid; other: Laid | null }) {
  const [box, size] = useSize();
  const both = other ? [own, other] : [own];
  const span_h = Math.max(
    24,
    ...both.map(({ outcome }) => (outcome.whole.demould_h ?? outcome.pours.at(-1)?.clock.start_h ?? 0) + 18),
  );
  const left = size.width < 560 ? 12 : 150;
  const time = scaleLinear([0, span_h], [left, Math.max(left + 100, size.width - 130)]);
  const marks = days(own.scene.brief.first_pour_at, span_h);
  const every = Math.max(1, Math.ceil(58 / Math.max(1, time(24) - time(0))));
  const rows = both.reduce((sum, one) => sum + one.scene.pours.length, 0);
  const row = Math.min(MOST_ROW, (HEIGHT - TOP - 22) / Math.max(1, rows));
  const second = TOP + 6 + own.scene.pours.length * row + 14;
  return (
    <Box ref={box} as="section" aria-label="Days of both plans" borderTop="1px solid" borderColor="hair">
      <svg width={size.width} height={HEIGHT}>
        <Label x={0} y={24} fontSize={17} fontWeight={800} fill="var(--ink)">
          Days
        </Label>
        {own.outcome.room.nights
          .filter((night) => night.from_h < span_h)
          .map((night) => (
            <rect
              key={night.from_h}
              x={time(night.from_h)}
              y={TOP - 6}
              width={time(Math.min(span_h, night.to_h)) - time(night.from_h)}
              height={HEIGHT - TOP}
              fill="var(--night)"
            />
          ))}
        {marks.map((mark, index) =>
          index % every ? null : (
            <Label key={mark.at_h} x={time(mark.at_h) + 4} y={24} fontSize={14} fill="var(--soft)">
              {mark.word}
            </Label>
          ),
        )}
        <Row laid={own} filled={false} y={TOP + 6} row={row} time={time} left={left} />
        {other ? <Row laid={other} filled y={second} row={row} time={time} left={left} /> : null}
      </svg>
    </Box>
  );
}

interface Rowed {
  laid: Laid;
  filled: boolean;
  y: number;
  row: number;
  time: Scale;
  left: number;
}

function Row({ laid, filled, y, row, time, left }: Rowed) {
  const { outcome, name } = laid;
  const out = outcome.whole.demould_h;
  const height = outcome.pours.length * row;
  return (
    <g role="img" aria-label={`${name}: ${outcome.pours.map((pour) => whenText(pour.clock.starts_at)).join("; ")}`}>
      {left > 20 ? (
        <Label
          x={left - 14}
          y={y + 12}
          fontSize={14}
          fontWeight={filled ? 800 : 400}
          fill={filled ? "var(--ink)" : "var(--soft)"}
          textAnchor="end"
        >
          {name.length > 20 ? `${name.slice(0, 19)}…` : name}
        </Label>
      ) : null}
      {outcome.pours.map((pour, index) => {
        const top = y + index * row;
        const { tack_opens_h, tack_closes_h } = pour.heat.cure ?? {};
        const opens = tack_opens_h ?? null;
        return (
          <g key={pour.id}>
            {opens === null ? null : (
              <rect
                x={time(pour.clock.start_h + opens)}
                y={top + 1}
                width={Math.max(
                  2,
                  time(pour.clock.start_h + (tack_closes_h ?? opens + 24)) - time(pour.clock.start_h + opens),
                )}
                height={row - 3}
                fill={filled ? "var(--set)" : "none"}
                fillOpacity={0.75}
                stroke="var(--set)"
                strokeWidth={1.4}
              />
            )}
            <rect
              x={time(pour.clock.start_h) - 5}
              y={top + row / 2 - 6}
              width={10}
              height={11}
              fill={filled ? "var(--ink)" : "var(--paper)"}
              stroke="var(--ink)"
              strokeWidth={1.5}
            />
          </g>
        );
      })}
      {out === null ? null : (
        <g>
          <path d={`M${time(out)} ${y}v${height}`} stroke={filled ? "var(--ink)" : "var(--soft)"} strokeWidth={1.5} />
          <Label
            x={time(out) + 6}
            y={y + 12}
            fontSize={13}
            fontWeight={filled ? 800 : 400}
            fill={filled ? "var(--ink)" : "var(--soft)"}
          >
            {`dam off ${whenText(outcome.whole.demould_at).replace(/ \w+,/, ",")}`}
          </Label>
        </g>
      )}
    </g>
  );
}
