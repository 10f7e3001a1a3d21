/** What the room does, drawn: decay by band, modes on a line, the low end at three heights. */
import { memo, type ReactNode } from "react";
import type { RoomBoard } from "../../api/types";
import { hzText } from "../../core/units";
import { Across, Curve, Foot, Layered, Paper, Side, Word } from "./frame";

const WIDE = 520;
const HIGH = 150;
const BASE = HIGH - 22;

/** Decay times in octave bands, Eyring as posts and Sabine as marks. */
export function DecayChart({ board }: { board: RoomBoard }) {
  const { bands_hz, eyring_s, sabine_s } = board.decay;
  const top = Math.max(...sabine_s, ...eyring_s, 0.3) * 1.1;
  const y = (s: number) => BASE - (s / top) * (HIGH - 40);
  const x = (i: number) => 58 + i * ((WIDE - 86) / (bands_hz.length - 1));
  const seconds = [0, top / 2, top];
  return (
    <Paper wide={WIDE} high={HIGH}>
      <Across at={seconds} y={y} from={38} to={WIDE - 8} />
      <Side at={seconds} x={34} y={y} say={(s) => `${s.toFixed(1)} s`} />
      {bands_hz.map((f, i) => (
        <g key={f}>
          <Post x={x(i)} top={y(eyring_s[i] ?? 0)} mark={y(sabine_s[i] ?? 0)} />
          <Word x={x(i)} y={HIGH - 7} size={10.5}>
            {hzText(f)}
          </Word>
        </g>
      ))}
    </Paper>
  );
}

function Post({ x, top, mark }: { x: number; top: number; mark: number }) {
  return (
    <>
      <rect
        x={x - 9}
        y={top}
        width="18"
        height={BASE - top}
        rx="2"
        fill="var(--room)"
        fillOpacity="0.55"
      />
      <line
        x1={x - 14}
        x2={x + 14}
        y1={mark}
        y2={mark}
        stroke="var(--ink)"
        strokeWidth="1.5"
        strokeDasharray="3 2"
      />
    </>
  );
}

/** How each kind of mode is drawn: the longest strokes are the strongest. */
const STROKES: Record<string, readonly [colour: string, long: number]> = {
  axial: ["var(--ink)", 70],
  plan: ["var(--ink)", 70],
  tangential: ["var(--snare)", 46],
  upright: ["var(--snare)", 46],
  oblique: ["var(--nomatter)", 26],
  mixed: ["var(--nomatter)", 26],
};
const OTHER = ["var(--ink)", 30] as const;

/** A frequency on a line of equal intervals. */
const octaves = (low: number, high: number, from: number, to: number) => (f: number) =>
  from + (Math.log(f / low) / Math.log(high / low)) * (to - from);

const withUnit = (f: number, i: number) => (i ? String(f) : `${f} Hz`);

/** Every mode as a stroke at its frequency. */
export function ModeChart({ board }: { board: RoomBoard }) {
  const x = octaves(18, 200, 12, WIDE - 12);
  const edge = x(Math.min(board.decay.schroeder_hz, 200));
  return (
    <Paper wide={WIDE} high={120}>
      <rect x={edge} y="6" width={Math.max(0, WIDE - 12 - edge)} height="84" fill="var(--tint)" />
      <line x1="8" x2={WIDE - 8} y1="90" y2="90" stroke="var(--ink)" strokeWidth="1.4" />
      {board.modes.map((m, i) => {
        const [colour, long] = STROKES[m.kind] ?? OTHER;
        return (
          <line
            key={i}
            x1={x(m.hz)}
            x2={x(m.hz)}
            y1="90"
            y2={90 - long}
            stroke={colour}
            strokeWidth="1.5"
          />
        );
      })}
      <Foot at={[20, 30, 50, 80, 120, 200]} x={x} y={106} size={10.5} say={withUnit} />
    </Paper>
  );
}

const HEIGHTS = {
  kick: ["var(--kick)", undefined],
  snare: ["var(--snare)", "6 3"],
  overhead: ["var(--ring)", "2 3"],
} as const;

const lowX = octaves(30, 300, 34, WIDE - 12);
const lowY = (db: number) => 64 - Math.max(-9, Math.min(9, db)) * 5.6;

/** What the boundary response to 300 Hz is drawn on. */
export function LowEndPaper({ children }: { children: ReactNode }) {
  return (
    <Layered wide={WIDE} high={140} under={<LowEndAxes />}>
      {children}
    </Layered>
  );
}

const LowEndAxes = memo(function LowEndAxes() {
  const levels = [6, 0, -6];
  return (
    <>
      <Across at={levels} y={lowY} from={30} to={WIDE - 8} />
      <Side at={levels} x={26} y={lowY} say={(db) => (db > 0 ? `+${db}` : String(db))} />
      <Foot at={[30, 50, 80, 120, 200, 300]} x={lowX} y={134} size={10.5} say={withUnit} />
    </>
  );
});

/** That of one height. */
export function LowEndCurve({ name, hz, db }: { name: string; hz: number[]; db: number[] }) {
  const [colour, dash] = HEIGHTS[name as keyof typeof HEIGHTS] ?? ["var(--ink)", undefined];
  return <Curve xs={hz} ys={db} x={lowX} y={lowY} {...{ colour, dash }} bold />;
}
