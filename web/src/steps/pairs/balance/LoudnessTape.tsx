/** A tape of loudness for one drum, or for the kit: every track a flag at its level. */
import { type KeyboardEvent, type PointerEvent, useRef } from "react";
import type { Board, Channel, Layout } from "../../../api/types";
import { micOf } from "../../../core/edits";
import { fits, LOUDEST_DB, lanesOf, type Row, SOFTEST_DB } from "../../../core/loudness";
import { dbText } from "../../../core/units";
import { micColour } from "../../../core/words";
import { Foot } from "../../../parts/curves/frame";
import type { Faders } from "./useFaders";

const [LEFT, RIGHT, LANE, TAPE, FOOT] = [92, 18, 21, 11, 15];
const MARKS = [-30, -24, -18, -12, -6, 0, 6, 12];
const KEYS: Record<string, number> = { ArrowRight: 1, ArrowUp: 1, ArrowLeft: -1, ArrowDown: -1 };

type Track = Board["tracks"][number];

interface Props {
  row: Row;
  layout: Layout;
  board: Board;
  wide: number;
  chosen: string | null;
  faders: Faders;
  /** The lowest of several, which has the figures. */
  last: boolean;
  onChoose: (id: string) => void;
}

const markText = (v: number) => (v ? `${v < 0 ? "−" : "+"}${Math.abs(v)}` : "0 dB");

export function LoudnessTape({ row, layout, board, wide, faders, last, ...rest }: Props) {
  const scale = (wide - LEFT - RIGHT) / (LOUDEST_DB - SOFTEST_DB);
  const x = (db: number) => LEFT + (Math.max(db, SOFTEST_DB) - SOFTEST_DB) * scale;
  const spots = spotsOf(row, board, faders, x);
  const { lane, count } = lanesOf(spots);
  const y = count * LANE + 4;
  // The highest first, so that its stalk passes behind those below it.
  const flags = spots
    .map((s) => ({ ...s, lane: lane.get(s.id) ?? 0 }))
    .sort((a, b) => b.lane - a.lane);
  return (
    <svg
      width={wide}
      height={y + TAPE + (last ? FOOT : 4)}
      role="group"
      aria-label={`Loudness, ${row.name}`}
    >
      <text x="2" y={y + 10} fontSize="12.5" fontWeight="700" fill="var(--ink)">
        {row.name}
      </text>
      <rect
        x={LEFT}
        y={y}
        width={wide - LEFT - RIGHT}
        height={TAPE}
        fill="var(--ink)"
        fillOpacity="0.08"
      />
      <line x1={x(0)} x2={x(0)} y1={y} y2={y + TAPE} stroke="var(--ink)" strokeWidth="1.4" />
      <Bleed {...{ row, layout, board, x, y }} />
      {MARKS.map((v) => (
        <line key={v} x1={x(v)} x2={x(v)} y1={y + TAPE} y2={y + TAPE + 3} stroke="var(--soft)" />
      ))}
      {last && <Foot at={MARKS} x={x} y={y + TAPE + 12} size={9} say={markText} />}
      {flags.map((s) => (
        <Flag
          key={s.id}
          {...s}
          y={y}
          colour={colourOf(s.track, layout)}
          {...{ scale, faders, ...rest }}
        />
      ))}
    </svg>
  );
}

/** Every track of a tape at its level; the one under the hand where that has it. */
function spotsOf(row: Row, board: Board, faders: Faders, x: (db: number) => number) {
  const ups = new Map(board.tracks.map((t) => [t.id, t]));
  return row.tracks.flatMap((track) => {
    const up = ups.get(track.id);
    const wideOf = Math.max(30, track.id.length * 8 + 12);
    const db = faders.held?.id === track.id ? faders.held.db : (up?.db ?? 0);
    return up ? [{ id: track.id, track, up, x: x(db), wide: wideOf }] : [];
  });
}

function colourOf(track: Channel, layout: Layout): string {
  const mic = micOf(layout, track.mic);
  return mic ? micColour(mic, layout) : "var(--soft)";
}

/** What every other mic has of this drum in the mix: small ticks on the tape itself. */
function Bleed(props: {
  row: Row;
  layout: Layout;
  board: Board;
  x: (db: number) => number;
  y: number;
}) {
  const { row, layout, board, x, y } = props;
  const k = board.sources.findIndex((s) => s.id === row.source);
  const own = new Set(row.tracks.map((t) => t.mic));
  if (k < 0) return null;
  return layout.mics.map((m, i) => {
    const db = board.after_gain_db[i]?.[k] ?? SOFTEST_DB;
    if (own.has(m.id) || db <= SOFTEST_DB) return null;
    return (
      <line
        key={m.id}
        data-bleed={m.id}
        x1={x(db)}
        x2={x(db)}
        y1={y + 2}
        y2={y + TAPE - 2}
        stroke={micColour(m, layout)}
        strokeWidth="2"
      >
        <title>{`${m.id} has it at ${dbText(db)} dB`}</title>
      </line>
    );
  });
}

interface FlagProps extends Pick<Props, "chosen" | "faders" | "onChoose"> {
  id: string;
  track: Channel;
  up: Track;
  x: number;
  y: number;
  wide: number;
  lane: number;
  colour: string;
  scale: number;
}

/** The hand on a flag: it follows along the tape, by keys a decibel at a time. */
function useGrip({ id, up, scale, faders, onChoose }: FlagProps) {
  const from = useRef<{ x: number; db: number; moved: boolean } | null>(null);
  const at = (e: PointerEvent) =>
    from.current ? fits(from.current.db + (e.clientX - from.current.x) / scale) : up.db;
  return {
    onPointerDown: (e: PointerEvent) => {
      if (e.button !== 0) return;
      e.currentTarget.setPointerCapture(e.pointerId);
      from.current = { x: e.clientX, db: up.db, moved: false };
      onChoose(id);
    },
    onPointerMove: (e: PointerEvent) => {
      if (!from.current || (!from.current.moved && at(e) === from.current.db)) return;
      from.current.moved = true;
      faders.onShow(id, at(e));
    },
    onPointerUp: (e: PointerEvent) => {
      if (from.current?.moved) faders.onTake(id, at(e));
      from.current = null;
    },
    onPointerCancel: () => {
      if (from.current?.moved) faders.onBack();
      from.current = null;
    },
    onKeyDown: (e: KeyboardEvent) => {
      const step = KEYS[e.key];
      if (step) faders.onStep(id, step * (e.shiftKey ? 6 : 1));
      else if (e.key.toLowerCase() === "m") faders.onMute(id);
      else if (e.key === "Home") faders.onUsual(id);
      else return;
      e.preventDefault();
    },
  };
}

function Flag(props: FlagProps) {
  const { id, up, track, x, y, lane, colour } = props;
  const grip = useGrip(props);
  const top = y - 4 - (lane + 1) * LANE + 3;
  const said = `${track.name}, ${dbText(up.db)} dB${up.heard ? "" : `, not heard: ${up.why}`}`;
  return (
    <g
      role="slider"
      tabIndex={0}
      aria-label={`Fader of ${id}`}
      aria-valuemin={SOFTEST_DB}
      aria-valuemax={LOUDEST_DB}
      aria-valuenow={up.db}
      aria-valuetext={said}
      data-fader={id}
      data-heard={up.heard}
      className="cursor-ew-resize touch-none"
      onFocus={() => props.onChoose(id)}
      {...grip}
    >
      <title>{said}</title>
      <line x1={x} x2={x} y1={top + LANE - 5} y2={y + TAPE} stroke={colour} strokeWidth="1.4" />
      <Plate {...props} top={top} />
    </g>
  );
}

/** Its name, dashed and struck out where it is not heard. */
function Plate({ id, up, x, wide, colour, chosen, top }: FlagProps & { top: number }) {
  const ink = up.heard ? "var(--ink)" : "var(--soft)";
  return (
    <>
      <rect
        x={x - wide / 2}
        y={top}
        width={wide}
        height={LANE - 4}
        rx="3.5"
        fill={chosen === id ? colour : "var(--card)"}
        stroke={colour}
        strokeWidth={up.set ? 1.8 : 1}
        strokeDasharray={up.heard ? undefined : "3 2"}
      />
      <text
        x={x}
        y={top + 12}
        fontSize="10.5"
        fontWeight="700"
        textAnchor="middle"
        className="num"
        fill={chosen === id ? "var(--on)" : ink}
        textDecoration={up.heard ? undefined : "line-through"}
      >
        {id}
      </text>
    </>
  );
}
