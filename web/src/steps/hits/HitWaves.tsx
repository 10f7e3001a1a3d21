/**
 * The hits of a drum over each other, channel by channel where each first half-wave arrived: a light
 * line a hit, a tick where it begins, and a hollow mark where the plan has it.
 */
import { useId } from "react";
import type { DrumHits, DrumWaves, Layout } from "../../api/types";
import { trace } from "../../core/curves";
import type { Shifts } from "../../core/ways";
import { micColour } from "../../core/words";
import { Plate } from "../../parts/chart/MicGlyph";
import { Word } from "../../parts/curves/frame";
import { useEditorPart } from "../../parts/editing";
import { useSize } from "../../parts/useSize";
import { useWaves } from "./useMeasured";

const ROW = 40;
const LEFT = 92;
const TOP = 22;
const WORD_PX = 46;
const SIGN = { "1": "+", "-1": "−", "0": "?" } as Record<string, string>;

type Arrival = DrumHits["arrivals"][number];

export interface Lane {
  channel: string;
  lag_ms: number | null;
  planned_ms: number;
  arrival: Arrival | null;
  hits: number[][];
  /** Where it is drawn as heard: so much later, flipped, and its sign against the drum's own mic. */
  later_ms: number;
  turn: number;
  sign: number;
  /** Otherwise it is drawn as it was recorded. */
  bent: boolean;
}

/** What is done to the tracks, where they are drawn as they are heard. */
export interface Bent {
  rate: number;
  shifts: Shifts;
}

/** The channels by when they hear the drum, its own mic at nought. */
export function lanesOf(drum: DrumHits, waves: DrumWaves, bent?: Bent): Lane[] {
  const of = (channel: string) => bent?.shifts[channel] ?? { flip: false, later: 0 };
  const own = of(drum.own);

  const hits = new Map(waves.rows.map((r) => [r.channel, r.hits]));
  const first = { channel: drum.own, lag_ms: 0, planned_ms: 0, arrival: null };
  const others = drum.arrivals.map((arrival) => ({ ...arrival, arrival }));
  return [first, ...others]
    .map(({ channel, lag_ms, planned_ms, arrival }) => ({
      channel,
      lag_ms,
      planned_ms,
      arrival,
      hits: hits.get(channel) ?? [],
      later_ms: ((of(channel).later - own.later) / (bent?.rate ?? 1)) * 1000,
      turn: of(channel).flip ? -1 : 1,
      bent: bent !== undefined,
      sign: (arrival?.sign ?? 0) * (of(channel).flip === own.flip ? 1 : -1),
    }))
    .sort((a, b) => (a.lag_ms ?? a.planned_ms) - (b.lag_ms ?? b.planned_ms));
}

interface Props {
  take: number;
  job: number | null;
  drum: DrumHits;
  bent?: Bent;
}

export function HitWaves({ take, job, drum, bent }: Props) {
  const waves = useWaves(take, job, drum.source);
  const doc = useEditorPart((s) => s.still);
  const [ref, { width }] = useSize<HTMLDivElement>();
  const clip = useId();
  if (waves.error && !waves.data) return <p role="alert">{waves.error.message}</p>;
  const here = waves.data?.source === drum.source ? waves.data : undefined;
  const lanes = here ? lanesOf(drum, here, bent) : [];
  const high = lanes.length * ROW + TOP + 6;
  return (
    <figure ref={ref} className="min-w-0">
      {here && width > 0 && (
        <svg width={width} height={high} role="group" aria-label="First half-waves of every hit">
          <Axis waves={here} width={width} low={high - 4} />
          <clipPath id={clip}>
            <rect x={LEFT} y={0} width={Math.max(width - LEFT, 0)} height={high} />
          </clipPath>
          {lanes.map((lane, n) => (
            <LaneRow
              key={lane.channel}
              {...{ lane, doc, width, clip }}
              planned={bent ? null : plannedOf(lane, drum)}
              waves={here}
              y={TOP + n * ROW + ROW / 2}
            />
          ))}
        </svg>
      )}
      <figcaption className="text-[0.82rem] text-soft">
        Low end of every hit, each as high as its own highest. Bar: where it begins
        {bent ? ", as it is heard" : ". Ring and dotted half-wave: as the plan has it"}. Dashed:
        refused.
      </figcaption>
    </figure>
  );
}

function scaleOf(waves: DrumWaves, width: number) {
  const points = waves.rows[0]?.hits[0]?.length ?? 2;
  const last = waves.from_ms + waves.step_ms * (points - 1);
  const x = (ms: number) =>
    LEFT + ((ms - waves.from_ms) / (last - waves.from_ms)) * (width - LEFT - 8);
  return { x, last };
}

function Axis({ waves, width, low }: { waves: DrumWaves; width: number; low: number }) {
  const { x, last } = scaleOf(waves, width);
  // As fine as its words have room for.
  const step = [1, 2, 5, 10].find((ms) => x(ms) - x(0) >= WORD_PX) ?? 20;
  const marks = Array.from({ length: Math.floor(last / step) + 1 }, (_, n) => n * step);
  return (
    <g aria-hidden="true">
      {marks.map((ms) => (
        <g key={ms}>
          <line x1={x(ms)} x2={x(ms)} y1={18} y2={low} stroke="var(--hair)" strokeWidth="0.8" />
          <Word x={x(ms)} y={11}>
            {ms} ms
          </Word>
        </g>
      ))}
    </g>
  );
}

interface RowProps {
  lane: Lane;
  doc: Layout;
  waves: DrumWaves;
  width: number;
  y: number;
  clip: string;
  planned: Planned | null;
}

function LaneRow({ lane, doc, waves, width, y, clip, planned }: RowProps) {
  const { x } = scaleOf(waves, width);
  const channel = doc.channels?.find((c) => c.id === lane.channel);
  const mic = doc.mics.find((m) => m.id === (channel?.mic ?? lane.channel));
  const colour = mic ? micColour(mic, doc) : "var(--ink)";
  return (
    <g role="img" aria-label={saidOf(lane)} data-lane={lane.channel}>
      <line x1={LEFT} x2={width - 8} y1={y} y2={y} stroke="var(--hair)" />
      <Plate name={lane.channel} x={24} y={y} wide={42} on={false} colour={colour} edge={colour} />
      <Sign lane={lane} y={y} />
      <g clipPath={`url(#${clip})`}>
        <Curves {...{ lane, waves, x, y, colour }} />
        {planned && <Pulse {...{ planned, x, y }} colour={colour} />}
        {lane.lag_ms !== null && (
          <line
            x1={x(lane.lag_ms + lane.later_ms)}
            x2={x(lane.lag_ms + lane.later_ms)}
            y1={y - 14}
            y2={y + 14}
            stroke="var(--ink)"
            strokeWidth="1.6"
          />
        )}
      </g>
    </g>
  );
}

interface CurvesProps {
  lane: Lane;
  waves: DrumWaves;
  x: (ms: number) => number;
  y: number;
  colour: string;
}

/** A line for every hit; dashed where its arrival was refused. */
function Curves({ lane, waves, x, y, colour }: CurvesProps) {
  const refused = lane.arrival !== null && lane.lag_ms === null;
  return (
    <>
      {lane.hits.map((hit, n) => (
        <path
          key={`${lane.channel} ${n}`}
          d={trace(
            hit.map((_, k) => waves.from_ms + lane.later_ms + k * waves.step_ms),
            hit,
            x,
            (v) => y - lane.turn * (v / 100) * (ROW / 2 - 3),
          )}
          fill="none"
          stroke={colour}
          strokeWidth="1.3"
          strokeOpacity={0.55}
          strokeDasharray={refused ? "3 3" : undefined}
        />
      ))}
    </>
  );
}

interface Planned {
  ms: number;
  /** +1 pushed, -1 pulled, 0 unsure. */
  way: number;
  half_ms: number;
}

/** The first half-wave the plan has: by the way the drum's own mic goes, where the hits tell it. */
function plannedOf({ planned_ms, arrival }: Lane, drum: DrumHits): Planned {
  const told = drum.arrivals.find((a) => a.sign && a.first);
  const own = told ? told.sign * told.first : 0;
  const hz = drum.planned_hz ?? drum.fundamental_hz ?? 0;
  return { ms: planned_ms, way: own * (arrival?.planned_sign ?? 1), half_ms: hz ? 500 / hz : 0 };
}

const STEPS = 12;

function Pulse(props: { planned: Planned; x: (ms: number) => number; y: number; colour: string }) {
  const { planned, x, y, colour } = props;
  const at = Array.from({ length: STEPS + 1 }, (_, k) => k / STEPS);
  return (
    <>
      <circle cx={x(planned.ms)} cy={y} r="3.6" fill="var(--panel)" stroke={colour} />
      {planned.way !== 0 && planned.half_ms > 0 && (
        <path
          data-planned
          d={trace(
            at.map((k) => planned.ms + k * planned.half_ms),
            at.map((k) => planned.way * Math.sin(Math.PI * k)),
            x,
            (v) => y - v * (ROW / 2 - 3),
          )}
          fill="none"
          stroke="var(--ink)"
          strokeWidth="1.2"
          strokeDasharray="1.5 3"
        />
      )}
    </>
  );
}

/** How its first half-wave goes against the drum's own mic, and whether the plan has it so. */
function Sign({ lane, y }: { lane: Lane; y: number }) {
  const { arrival } = lane;
  if (!arrival) return null;
  const { planned_sign } = arrival;
  const against = !lane.bent && lane.sign && planned_sign && lane.sign !== planned_sign;
  return (
    <text
      x="66"
      y={y + 5}
      fontSize="14"
      textAnchor="middle"
      className="num"
      fontWeight={against ? 800 : 400}
      fill={against ? "var(--hollow)" : "var(--ink)"}
    >
      {SIGN[lane.sign]}
      {against ? "!" : ""}
    </text>
  );
}

const SAID = { "1": "alike", "-1": "turned over", "0": "sign unsure" } as Record<string, string>;

function saidOf({ channel, arrival, lag_ms, planned_ms, sign, later_ms }: Lane): string {
  if (!arrival) return `${channel}: the drum's own mic`;
  if (lag_ms === null) return `${channel}: refused, ${arrival.why_not}; ${SAID[sign]}`;
  return `${channel}: ${(lag_ms + later_ms).toFixed(2)} ms, planned ${planned_ms.toFixed(2)}, ${SAID[sign]}`;
}
