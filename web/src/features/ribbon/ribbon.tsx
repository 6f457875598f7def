import { useChoice } from "../../desk/choice";
import { useCursor, useCursorHands } from "../../desk/cursor";
import { useDocument } from "../../desk/document";
import { inHundred, useDrawn, withDrawnWindows } from "../../desk/drawn";
import { Label } from "../../sounding/label";
import { Box } from "@chakra-ui/react";
import { scaleLinear } from "d3-scale";
import { useRef } from "react";

import type { CureSpan, PourOutcome, Scene } from "../../api/types";
import { useDrag } from "../../sounding/drag";
import { between, nearest, type Scale } from "../../sounding/scales";
import { useSize } from "../../sounding/size";
import { hoursBand, hoursText, lengthText, temperatureText, whenText } from "../../units/display";
import { withPour } from "../../desk/edits";
import { days, movedWait } from "../../desk/days";
import { Entries, Started, useHappened } from "./happened";

/** Room beside the days, and beside those of a phone. */
const SIDES = { wide: { left: 196, right: 150 }, narrow: { left: 76, right: 24 } };
const NARROW = 560;
const TOP = 30;
const HEIGHT = 156;
/** A line of its own for the moment, on a phone. */
const PHONE_LINE = 20;

/** The days: each pour with its waits, the nights, and the moment that is looked at. */
export function Ribbon() {
  const desk = useDocument();
  const [box, size] = useSize();
  const { outcome } = desk;
  const happened = useHappened();
  const { demould_span, full_cure_span } = outcome.whole;
  const span_h = Math.max(outcome.march.simulated_h, (demould_span?.late_h ?? outcome.whole.demould_h ?? 0) + 6, 24);
  const narrow = size.width > 0 && size.width < NARROW;
  const { left, right } = narrow ? SIDES.narrow : SIDES.wide;
  const time = scaleLinear([0, span_h], [left, Math.max(left + 100, size.width - right)]);
  const row = Math.min(22, (HEIGHT - TOP - 24) / outcome.pours.length);
  const marks = days(desk.scene.brief.first_pour_at, span_h);
  const day_px = time(24) - time(0);
  const every = Math.max(1, Math.ceil(54 / day_px));
  const out = outcome.whole.demould_h;
  return (
    <Box
      ref={box}
      as="section"
      aria-label="Days"
      borderTop="1px solid"
      borderColor="hair"
      height={`${HEIGHT + (narrow ? PHONE_LINE : 0)}px`}
      flexShrink="0"
      position="relative"
    >
      <svg width={size.width} height={HEIGHT + (narrow ? PHONE_LINE : 0)}>
        <Label x={20} y={24} fontSize={18} fontWeight={800} fill="var(--ink)">
          Days
        </Label>
        {narrow ? null : (
          <>
            <Label x={20} y={44} fontSize={13} fontStyle="italic" fill="var(--soft)">
              drag a square
            </Label>
            <Label x={20} y={60} fontSize={13} fontStyle="italic" fill="var(--soft)">
              to wait longer
            </Label>
          </>
        )}
        {outcome.room.nights.map((night) => (
          <rect
            key={night.from_h}
            x={time(night.from_h)}
            y={TOP}
            width={time(night.to_h) - time(night.from_h)}
            height={HEIGHT - TOP - 24}
            fill="var(--night)"
          />
        ))}
        {marks.map((mark, index) =>
          index % every ? null : (
            <g key={mark.word + mark.at_h}>
              <path d={`M${time(mark.at_h)} ${TOP - 8}V${HEIGHT - 24}`} stroke="var(--hair)" />
              <Label x={time(mark.at_h) + 4} y={TOP - 10} fontSize={14} fill="var(--soft)">
                {mark.word}
              </Label>
            </g>
          ),
        )}
        <Work time={time} />
        {outcome.pours.map((pour, index) => (
          <PourBar
            key={pour.id}
            pour={pour}
            y={TOP + 4 + index * row}
            height={Math.max(6, row - 8)}
            time={time}
            was_h={happened?.starts_h[index] ?? null}
          />
        ))}
        {happened ? <Entries happened={happened} y={HEIGHT - 34} time={time} /> : null}
        {out === null ? null : (
          <g>
            <path d={`M${time(out)} ${TOP - 6}V${HEIGHT - 24}`} stroke="var(--ink)" strokeWidth={1.6} />
            {[
              ["dam off", 8],
              [whenText(outcome.whole.demould_at), 25],
              [
                `full cure in ${full_cure_span ? hoursBand(full_cure_span) : hoursText((outcome.whole.full_cure_d ?? 0) * 24)}`,
                42,
              ],
            ].map(([text, y], at) => (
              <Label
                key={text}
                x={time(out) + (narrow ? -6 : 6)}
                y={TOP + Number(y)}
                textAnchor={narrow ? "end" : "start"}
                fontSize={at === 0 ? 14 : 13}
                fontWeight={at === 0 ? 700 : 400}
                fontStyle={at === 2 ? "italic" : "normal"}
                fill={at === 0 ? "var(--ink)" : "var(--soft)"}
              >
                {text}
              </Label>
            ))}
            {demould_span ? <Whisker span={demould_span} time={time} end={span_h} y={TOP - 6} word="dam off" /> : null}
          </g>
        )}
        <Moment time={time} span_h={span_h} />
      </svg>
    </Box>
  );
}

/** Steps of the work between the pours: a mark where they fall, in caution where one comes too late. */
function Work({ time }: { time: Scale }) {
  const { work } = useDocument().outcome;
  const groups = new Map<number, typeof work>();
  for (const step of work) {
    if (!step.id.startsWith("pour:")) groups.set(step.at_h, [...(groups.get(step.at_h) ?? []), step]);
  }
  return (
    <g>
      {[...groups].map(([at_h, steps]) => (
        <path
          key={at_h}
          d={`M${time(at_h) - 4} ${TOP - 6}h8l-4 6z`}
          fill={steps.some((step) => step.wrong) ? "var(--caution)" : "var(--soft)"}
        >
          <title>{steps.map((step) => step.words + (step.wrong ? " (too late)" : "")).join(", ")}</title>
        </path>
      ))}
    </g>
  );
}

/** One pour on the days; where it was made already, what was meant is outlined and what was is filled. */
function PourBar({
  pour: quick,
  y,
  height,
  time,
  was_h,
}: {
  pour: PourOutcome;
  y: number;
  height: number;
  time: Scale;
  was_h: number | null;
}) {
  const desk = useDocument();
  const choice = useChoice();
  const drawn = useDrawn();
  const pour = withDrawnWindows(quick, drawn);
  const flame = desk.outcome.clarity.find((one) => one.pour_number === pour.number)?.flame;
  const chance = drawn?.pours.find((one) => one.pour_number === pour.number - 1)?.bonds_fraction ?? null;
  const from = useRef<{ scene: Scene; wait_h: number; last: Scene } | null>(null);
  const { cure, spans } = pour.heat;
  const { start_h } = pour.clock;
  const at = (hours: number | null | undefined) =>
    hours === null || hours === undefined ? null : time(start_h + hours);
  const drag = useDrag(
    () => {
      choice.choosePour(pour.number);
      from.current = { scene: desk.scene, wait_h: desk.scene.pours[pour.number - 1]?.wait_h ?? 0, last: desk.scene };
    },
    ({ dx, done }) => {
      const began = from.current;
      if (!began || pour.number === 1) return;
      const wait_h = movedWait(began.wait_h, time.invert(dx) - time.invert(0));
      const scene = withPour(began.scene, pour.number, { wait_h });
      if (done && wait_h !== began.wait_h) desk.keep(scene, `wait before pour ${pour.number}`);
      else if (!done) desk.show(scene);
    },
  );
  const middle = y + height / 2;
  const [x, opens, closes, hard] = [time(start_h), at(cure?.tack_opens_h), at(cure?.tack_closes_h), at(cure?.hard_h)];
  const chosen = choice.pourNumber === pour.number;
  const [, end] = time.range();
  const end_h = time.domain()[1] ?? Infinity;
  return (
    <g>
      <path d={`M${x} ${middle}H${hard ?? end}`} stroke="var(--hair)" strokeWidth={3} />
      {opens === null ? null : <path d={`M${x} ${middle}H${opens}`} stroke="var(--soft)" strokeWidth={4} />}
      <path
        d={`M${x} ${middle}H${Math.max(x + 3, time(start_h + pour.clock.working_late_min / 60))}`}
        stroke="var(--watch)"
        strokeOpacity={0.4}
        strokeWidth={7}
      />
      <path
        d={`M${x} ${middle}H${Math.max(x + 3, time(start_h + pour.clock.working_early_min / 60))}`}
        stroke="var(--watch)"
        strokeWidth={7}
      >
        <title>{`working time ${hoursBand({ early_h: pour.clock.working_early_min / 60, late_h: pour.clock.working_late_min / 60 })}`}</title>
      </path>
      {flame && flame.passes_min.length > 0 ? (
        <path d={`M${x + 2} ${y - 1}l2.5 -5l2.5 5z`} fill="var(--watch)">
          <title>{`flame or heat gun ${flame.passes_min.join(", ")} min after${flame.until_min === null ? "" : `; from ${hoursText(flame.until_min / 60)} it only wrinkles`}`}</title>
        </path>
      ) : null}
      {at(cure?.demould_h) === null ? null : (
        <path d={`M${at(cure?.demould_h) ?? 0} ${y + 2}l5 ${height / 2 - 2}l-5 ${height / 2 - 2}Z`} fill="var(--soft)">
          <title>could come out</title>
        </path>
      )}
      {opens === null || closes === null ? null : (
        <Tack pour={pour} opens={opens} closes={closes} y={y} height={height} time={time} />
      )}
      {at(cure?.gel_h) === null ? null : (
        <circle cx={at(cure?.gel_h) ?? 0} cy={middle} r={3.2} fill="var(--soft)">
          <title>{spans?.gel ? `gel after ${hoursBand(spans.gel)}` : "gel"}</title>
        </circle>
      )}
      {chosen && spans?.hard ? (
        <Whisker span={spans.hard} from_h={start_h} time={time} end={end_h} y={y - 1} word="hard" />
      ) : null}
      {chosen && spans?.demould ? (
        <Whisker
          span={spans.demould}
          from_h={start_h}
          time={time}
          end={end_h}
          y={y + height + 1}
          word="could come out"
        />
      ) : null}
      {hard === null ? null : (
        <path
          d={`M${hard} ${y}V${y + height}`}
          stroke="var(--soft)"
          strokeWidth={2}
          strokeDasharray={cure?.demould_h === null ? "2 2" : undefined}
        >
          <title>{cure?.demould_h === null ? "hard, only as cold as this room" : "hard"}</title>
        </path>
      )}
      <Label
        x={x - 12}
        y={middle + 4.5}
        fontSize={14}
        fontWeight={chosen ? 800 : 500}
        textAnchor="end"
        fill="var(--ink)"
      >
        {`pour ${pour.number}`}
        {chance === null ? "" : `, ${inHundred(chance).replace(/^in /, "")}`}
      </Label>
      <rect
        className={pour.number === 1 ? "press" : "hours"}
        x={x - 8}
        y={middle - 8}
        width={16}
        height={16}
        fill={was_h !== null ? "var(--plot)" : chosen ? "var(--depth)" : "var(--ink)"}
        stroke={was_h === null ? undefined : "var(--ink)"}
        strokeWidth={was_h === null ? undefined : 1.6}
        role="slider"
        tabIndex={0}
        aria-label={`Start of pour ${pour.number}`}
        aria-valuenow={pour.clock.start_h}
        aria-valuetext={`${hoursText(pour.clock.start_h)} after the first pour`}
        onKeyDown={(event) => {
          const by = { ArrowRight: 1, ArrowLeft: -1 }[event.key];
          if (!by || pour.number === 1) return;
          event.preventDefault();
          const wait_h = movedWait(desk.scene.pours[pour.number - 1]?.wait_h ?? 0, by);
          desk.keep(withPour(desk.scene, pour.number, { wait_h }), `wait before pour ${pour.number}`);
        }}
        {...drag}
      />
      {was_h === null ? null : <Started meant_h={start_h} was_h={was_h} y={middle} time={time} />}
    </g>
  );
}

/** How early and how late something may come: a thin line with its ends. */
function Whisker({
  span,
  from_h = 0,
  time,
  end,
  y,
  word,
}: {
  span: CureSpan;
  from_h?: number;
  time: Scale;
  end: number;
  y: number;
  word: string;
}) {
  const [early, late] = [time(from_h + span.early_h), time(Math.min(end, from_h + (span.late_h ?? Infinity)))];
  return (
    <path
      d={`M${early} ${y - 2}v4M${early} ${y}H${late}${span.late_h === null ? "" : "m0 -2v4"}`}
      fill="none"
      stroke="var(--soft)"
      strokeWidth={1.1}
    >
      <title>{`${word} after ${hoursBand(span)}`}</title>
    </path>
  );
}

/** The tack window: palest where only a fast or a slow cure has it open, darkest where all have. */
function Tack({
  pour,
  opens,
  closes,
  y,
  height,
  time,
}: {
  pour: PourOutcome;
  opens: number;
  closes: number;
  y: number;
  height: number;
  time: Scale;
}) {
  const [first, last] = [pour.heat.spans?.tack_opens, pour.heat.spans?.tack_closes];
  const at = (hours: number | null | undefined, otherwise: number) =>
    hours === null || hours === undefined ? otherwise : time(pour.clock.start_h + hours);
  const [begins, ends] = [at(first?.early_h, opens), at(last?.late_h, closes)];
  const [sure, until] = [at(first?.late_h, opens), at(last?.early_h, closes)];
  const words = first && last ? `tack opens after ${hoursBand(first)}, closes after ${hoursBand(last)}` : "tack";
  return (
    <g>
      <title>{words}</title>
      <rect x={begins} y={y} width={ends - begins} height={height} fill="var(--set)" fillOpacity={0.3} />
      <rect x={opens} y={y} width={closes - opens} height={height} fill="var(--set)" fillOpacity={0.75} />
      {until > sure ? <rect x={sure} y={y} width={until - sure} height={height} fill="var(--set)" /> : null}
      {height > 11 && closes - opens > 40 ? (
        <Label x={opens + 6} y={y + height / 2 + 4.5} fontSize={13} fontWeight={700} fill="var(--on-set)">
          tack
        </Label>
      ) : null}
    </g>
  );
}

/** The moment that is looked at: dragged along the days, read out under them. */
function Moment({ time, span_h }: { time: Scale; span_h: number }) {
  const desk = useDocument();
  const cursor = useCursor();
  const hands = useCursorHands();
  const from = useRef(0);
  const drag = useDrag(
    () => {
      from.current = time(cursor.at_h);
    },
    ({ dx }) => {
      hands.scrub(Math.min(span_h, Math.max(0, time.invert(from.current + dx))));
    },
  );
  const { heat, history, room } = desk.outcome;
  const level = nearest(heat.depth_mm, cursor.depth_mm);
  const hot = between(
    history.at_h,
    history.hottest_c.map((row) => row[level] ?? null),
    cursor.at_h,
  );
  const cure = between(
    history.at_h,
    history.least_degree.map((row) => row[level] ?? null),
    cursor.at_h,
  );
  const air = between(room.at_h, room.room_c, cursor.at_h);
  const x = time(Math.min(cursor.at_h, span_h));
  const words = [
    hot === null
      ? "not poured yet"
      : `${temperatureText(hot, desk.units)} and ${Math.round((cure ?? 0) * 100)} % cured`,
    `at ${lengthText(cursor.depth_mm, desk.units)}`,
    air === null ? "" : `room ${temperatureText(air, desk.units)}`,
  ]
    .filter(Boolean)
    .join(", ");
  const [left, right] = [time(0), time(span_h)];
  return (
    <g>
      <rect
        className="press"
        x={left}
        y={HEIGHT - 24}
        width={right - left}
        height={24}
        fill="transparent"
        onPointerDown={(event) => {
          const box = event.currentTarget.ownerSVGElement?.getBoundingClientRect();
          if (box) hands.scrub(Math.min(span_h, Math.max(0, time.invert(event.clientX - box.left))));
        }}
      />
      <path d={`M${x} ${TOP - 16}V${HEIGHT - 12}`} stroke="var(--depth)" strokeWidth={1.6} pointerEvents="none" />
      <circle
        className="hours"
        cx={x}
        cy={HEIGHT - 12}
        r={7}
        fill="var(--depth)"
        role="slider"
        tabIndex={0}
        aria-label="Moment"
        aria-valuenow={Math.round(cursor.at_h * 10) / 10}
        aria-valuemin={0}
        aria-valuemax={Math.round(span_h)}
        aria-valuetext={`${hoursText(cursor.at_h)} after the first pour: ${words}`}
        onKeyDown={(event) => {
          const by = { ArrowRight: 1, ArrowLeft: -1, PageUp: 12, PageDown: -12 }[event.key];
          if (!by) return;
          event.preventDefault();
          hands.scrub(Math.min(span_h, Math.max(0, cursor.at_h + by)));
        }}
        {...drag}
      />
      <Label
        x={right < 420 ? 12 : x > right - 260 ? x - 14 : x + 14}
        y={HEIGHT + (right < 420 ? 12 : -7)}
        fontSize={14}
        fontWeight={700}
        fontStyle="italic"
        fill="var(--depth)"
        textAnchor={right >= 420 && x > right - 260 ? "end" : "start"}
        pointerEvents="none"
      >
        {hoursText(cursor.at_h)}: {words}
      </Label>
    </g>
  );
}
