/** The pulses: each mic's first half-wave of one drum at its arrival, up or down, dashed if unsure. */
import type { Board, Layout, Mic } from "../../api/types";
import { trace } from "../../core/curves";
import { roomyStep } from "../../core/flags";
import { msText } from "../../core/units";
import { micColour } from "../../core/words";
import { Plate } from "../chart/MicGlyph";
import { useSize } from "../useSize";
import { Word } from "./frame";

interface Props {
  layout: Layout;
  board: Board;
  source: string;
  lit: string[];
  onHover: (id: string | null) => void;
  /** Only mics that the mix hears of this drum. */
  needed?: boolean;
  /** Units of mics together, by the first of each. */
  byUnit?: boolean;
}

interface Arrival {
  mic: Mic;
  ms: number;
  sign: number;
  level: number;
}

const ROW = 33;
/** Many rows are lower, so that they are seen at once. */
const LOW_ROW = 24;
const MANY = 16;
const LEFT = 62;
const TOP = 22;
const SIGN = { "1": "+", "-1": "−", "0": "?" } as Record<string, string>;
const SAID = { "1": "first pushed", "-1": "first pulled", "0": "unsure" } as Record<string, string>;

/** The mics put up for a drum, and those with a pair on it that is not "no matter". */
function neededOf(layout: Layout, board: Board, k: number): Set<string> {
  const own = layout.mics.filter((m) => m.job === board.sources[k]?.id).map((m) => m.id);
  const heard = board.pair_a.flatMap((a, i) =>
    board.verdict[i]?.[k] === "no matter" ? [] : [a, board.pair_b[i] as string],
  );
  return new Set([...own, ...heard]);
}

/** Rows of a unit together, the units by the first of each to hear the drum. */
function grouped(rows: Arrival[], board: Board): Arrival[] {
  const unit = new Map(board.units.flatMap((u, n) => u.mics.map((m) => [m, n] as const)));
  const of = (r: Arrival) => unit.get(r.mic.id) ?? -1;
  const first = new Map<number, number>();
  for (const r of rows) if (!first.has(of(r))) first.set(of(r), r.ms);
  const at = (r: Arrival) => first.get(of(r)) ?? r.ms;
  return [...rows].sort((a, b) => at(a) - at(b) || of(a) - of(b) || a.ms - b.ms);
}

/** The mics by when they hear the drum. */
function arrivalsOf(props: Pick<Props, "layout" | "board" | "needed" | "byUnit">, k: number) {
  const { layout, board } = props;
  const needed = props.needed ? neededOf(layout, board, k) : null;
  const rows = allOf(layout, board, k).filter((r) => needed?.has(r.mic.id) ?? true);
  return props.byUnit ? grouped(rows, board) : rows;
}

function allOf(layout: Layout, board: Board, k: number): Arrival[] {
  return layout.mics
    .map((mic) => {
      const i = board.mic_ids.indexOf(mic.id);
      return {
        mic,
        ms: (board.arrival_s[i]?.[k] ?? 0) * 1000,
        sign: board.sign[i]?.[k] ?? 0,
        level: board.after_gain_db[i]?.[k] ?? -60,
      };
    })
    .sort((a, b) => a.ms - b.ms);
}

/** The axis of time, and how long one drawn wave is on it. */
function axisOf(rows: Arrival[], fundamental_hz: number, width: number) {
  const last = Math.max(4, ...rows.map((r) => r.ms + 1));
  // One wave is drawn an eighth of the axis long at least, so that its first half can be seen.
  const period = Math.max(last / 8, Math.min(last / 3, 1000 / (fundamental_hz * 6)));
  const x = (ms: number) => LEFT + (ms / last) * (width - LEFT - 12);
  return { last, period, x };
}

export function Pulses(props: Props) {
  const { layout, board, source, lit, onHover } = props;
  const [ref, { width }] = useSize<HTMLDivElement>();
  const k = board.sources.findIndex((s) => s.id === source);
  const rows = arrivalsOf(props, k);
  const row = rows.length > MANY ? LOW_ROW : ROW;
  const axis = axisOf(rows, board.sources[k]?.fundamental_hz ?? 200, width);
  const high = rows.length * row + 24;
  return (
    <div ref={ref} className="min-w-0">
      {width > 0 && (
        <svg width={width} height={high} role="group" aria-label="First half-waves by arrival">
          <Milliseconds axis={axis} low={high - 2} />
          {rows.map((r, i) => (
            <Row
              key={r.mic.id}
              {...{ axis, width, onHover }}
              arrival={r}
              y={TOP + i * row + row / 2}
              high={row}
              on={lit.includes(r.mic.id)}
              colour={micColour(r.mic, layout)}
            />
          ))}
        </svg>
      )}
    </div>
  );
}

type Axis = ReturnType<typeof axisOf>;

function Milliseconds({ axis, low }: { axis: Axis; low: number }) {
  const step = roomyStep(1, axis.x(1) - axis.x(0), 38);
  return (
    <g aria-hidden="true">
      {Array.from({ length: Math.floor(axis.last / step) + 1 }, (_, n) => n * step).map((ms) => (
        <g key={ms}>
          <line
            x1={axis.x(ms)}
            x2={axis.x(ms)}
            y1={18}
            y2={low}
            stroke="var(--hair)"
            strokeWidth="0.8"
          />
          <Word x={axis.x(ms)} y={11}>
            {ms} ms
          </Word>
        </g>
      ))}
    </g>
  );
}

function Row(props: {
  arrival: Arrival;
  axis: Axis;
  y: number;
  high: number;
  width: number;
  on: boolean;
  colour: string;
  onHover: (id: string | null) => void;
}) {
  const { arrival, axis, y, high, width, on, colour, onHover } = props;
  const { mic, ms, sign } = arrival;
  const x = axis.x(ms);
  return (
    <g
      role="img"
      aria-label={`${mic.id}: ${msText(ms / 1000)} ms, ${SAID[sign]}`}
      onPointerEnter={() => onHover(mic.id)}
      onPointerLeave={() => onHover(null)}
    >
      {on && <rect x="0" y={y - high / 2} width={width} height={high} fill="var(--tint)" />}
      <line x1={LEFT} x2={width - 12} y1={y} y2={y} stroke="var(--hair)" />
      <Plate name={mic.id} x={20} y={y} wide={34} on={on} colour={colour} edge={colour} />
      <text
        x="48"
        y={y + 4}
        fontSize="13"
        textAnchor="middle"
        className="num"
        fill="var(--ink)"
        data-sign={mic.id}
      >
        {SIGN[sign]}
      </text>
      <line x1={x} x2={x} y1={y - 11} y2={y + 11} stroke={colour} strokeWidth="1.2" />
      <path
        d={wave(arrival, axis, y)}
        fill="none"
        stroke={colour}
        strokeWidth="1.9"
        strokeDasharray={sign ? undefined : "3 3"}
      />
    </g>
  );
}

/** A wave that dies away, first up for a push, as high as it is loud. */
function wave({ ms, sign, level }: Arrival, { last, period, x }: Axis, y: number): string {
  const high = Math.max(2.5, Math.min(13, 13 * 10 ** (Math.min(level, 0) / 26)));
  const steps = Array.from({ length: 63 }, (_, i) => (i * period) / 24).filter(
    (t) => ms + t <= last,
  );
  const swing = steps.map(
    (t) =>
      (sign || 1) * Math.sin((2 * Math.PI * t) / period) * Math.exp(-t / (period * 0.9)) * 1.35,
  );
  return trace(
    steps.map((t) => ms + t),
    swing,
    x,
    (v) => y - high * v,
  );
}
