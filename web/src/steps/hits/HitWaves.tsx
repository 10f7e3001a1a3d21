/**
 * The hits of a drum over each other, channel by channel where each first half-wave arrived: a light
 * line a hit, a tick where it begins, and a hollow mark where the plan has it.
 */
import type { DrumHits, DrumWaves, Layout } from "../../api/types";
import { trace } from "../../core/curves";
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
}

/** The channels by when they hear the drum, its own mic at nought. */
export function lanesOf(drum: DrumHits, waves: DrumWaves): Lane[] {
  const hits = new Map(waves.rows.map((r) => [r.channel, r.hits]));
  const own = { channel: drum.own, lag_ms: 0, planned_ms: 0, arrival: null };
  const others = drum.arrivals.map((arrival) => ({ ...arrival, arrival }));
  return [own, ...others]
    .map(({ channel, lag_ms, planned_ms, arrival }) => ({
      channel,
      lag_ms,
      planned_ms,
      arrival,
      hits: hits.get(channel) ?? [],
    }))
    .sort((a, b) => (a.lag_ms ?? a.planned_ms) - (b.lag_ms ?? b.planned_ms));
}

interface Props {
  take: number;
  job: number | null;
  drum: DrumHits;
}

export function HitWaves({ take, job, drum }: Props) {
  const waves = useWaves(take, job, drum.source);
  const doc = useEditorPart((s) => s.still);
  const [ref, { width }] = useSize<HTMLDivElement>();
  if (waves.error) return <p role="alert">{waves.error.message}</p>;
  const here = waves.data?.source === drum.source ? waves.data : undefined;
  const lanes = here ? lanesOf(drum, here) : [];
  const high = lanes.length * ROW + TOP + 6;
  return (
    <figure ref={ref} className="min-w-0">
      {here && width > 0 && (
        <svg width={width} height={high} role="group" aria-label="First half-waves of every hit">
          <Axis waves={here} width={width} low={high - 4} />
          {lanes.map((lane, n) => (
            <LaneRow
              key={lane.channel}
              {...{ lane, doc, width }}
              waves={here}
              y={TOP + n * ROW + ROW / 2}
            />
          ))}
        </svg>
      )}
      <figcaption className="text-[0.82rem] text-soft">
        Low end of every hit, each as high as its own highest. Bar: where it begins. Ring: where the
        plan has it. Dashed: refused.
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
}

function LaneRow({ lane, doc, waves, width, y }: RowProps) {
  const { x } = scaleOf(waves, width);
  const channel = doc.channels?.find((c) => c.id === lane.channel);
  const mic = doc.mics.find((m) => m.id === (channel?.mic ?? lane.channel));
  const colour = mic ? micColour(mic, doc) : "var(--ink)";
  return (
    <g role="img" aria-label={saidOf(lane)} data-lane={lane.channel}>
      <line x1={LEFT} x2={width - 8} y1={y} y2={y} stroke="var(--hair)" />
      <Plate name={lane.channel} x={24} y={y} wide={42} on={false} colour={colour} edge={colour} />
      <Sign lane={lane} y={y} />
      <Curves {...{ lane, waves, x, y, colour }} />
      <circle cx={x(lane.planned_ms)} cy={y} r="3.6" fill="var(--panel)" stroke={colour} />
      {lane.lag_ms !== null && (
        <line
          x1={x(lane.lag_ms)}
          x2={x(lane.lag_ms)}
          y1={y - 14}
          y2={y + 14}
          stroke="var(--ink)"
          strokeWidth="1.6"
        />
      )}
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
            hit.map((_, k) => waves.from_ms + k * waves.step_ms),
            hit,
            x,
            (v) => y - (v / 100) * (ROW / 2 - 3),
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

/** How its first half-wave goes against the drum's own mic, and whether the plan has it so. */
function Sign({ lane, y }: { lane: Lane; y: number }) {
  const { arrival } = lane;
  if (!arrival) return null;
  const against = arrival.sign && arrival.planned_sign && arrival.sign !== arrival.planned_sign;
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
      {SIGN[arrival.sign]}
      {against ? "!" : ""}
    </text>
  );
}

const SAID = { "1": "alike", "-1": "turned over", "0": "sign unsure" } as Record<string, string>;

function saidOf({ channel, arrival, lag_ms, planned_ms }: Lane): string {
  if (!arrival) return `${channel}: the drum's own mic`;
  if (lag_ms === null) return `${channel}: refused, ${arrival.why_not}; ${SAID[arrival.sign]}`;
  return `${channel}: ${lag_ms.toFixed(2)} ms, planned ${planned_ms.toFixed(2)}, ${SAID[arrival.sign]}`;
}
