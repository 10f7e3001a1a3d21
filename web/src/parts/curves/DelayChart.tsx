/** Body of a pair's sum over delay, as wired and flipped, with where the two stand now. */
import type { DelayCurve } from "../../api/types";
import { lengthWithUnit, type Ruler } from "../../core/units";
import { Across, asWired, Curve, FLIPPED, Foot, Levels, Paper, Word } from "./frame";

interface Props {
  curve: DelayCurve;
  /** The mic whose track would be later. */
  mover: string;
  speed: number;
  ruler: Ruler;
  sure: boolean;
  width?: number;
  height?: number;
}

const REACH_MS = 5;
const FOOT = 28;
const TOP_DB = 8;
const MARKS_MS = [-4, -2, 0, 2, 4];

/** Where a delay and a level stand on the paper. */
function scales(curve: DelayCurve, width: number, height: number) {
  const low = Math.min(-12, Math.max(-24, Math.min(...curve.wired_db, ...curve.flipped_db)));
  return {
    low,
    x: (s: number) => ((s * 1000 + REACH_MS) / (2 * REACH_MS)) * width,
    y: (db: number) => ((TOP_DB - Math.max(db, low)) / (TOP_DB - low)) * (height - FOOT),
  };
}

export function DelayChart(props: Props) {
  const { curve, mover, sure, width = 340, height = 124 } = props;
  const { low, x, y } = scales(curve, width, height);
  const axes = { xs: curve.later_s, x, y };
  const now = `now ${curve.now_db.toFixed(1)} dB, flipped ${curve.flipped_now_db.toFixed(1)} dB`;
  return (
    <Paper wide={width} high={height} label={`Body against delay: ${now}. ${curve.words}`}>
      <Across at={[6, 0, -6, -12, -18].filter((db) => db > low)} y={y} to={width} />
      <Foot at={MARKS_MS} x={(ms) => x(ms / 1000)} y={height - 15} size={9} say={sayMs} />
      <Foot
        at={MARKS_MS}
        x={(ms) => x(ms / 1000)}
        y={height - 3}
        size={9}
        say={(ms) => (ms === 0 ? mover : sayTravel(ms, props))}
      />
      <Curve {...axes} ys={curve.flipped_db} {...FLIPPED} />
      <Curve {...axes} ys={curve.wired_db} {...asWired(sure)} />
      <line x1={x(0)} x2={x(0)} y1="0" y2={height - FOOT} stroke="var(--ink)" strokeWidth="1.2" />
      {sure && <Points curve={curve} x={x} y={y} />}
      {curve.equal_s !== null && Math.abs(curve.equal_s) > 1e-4 && (
        <AtOnce x={x(curve.equal_s)} low={height - FOOT} />
      )}
      <Levels at={[0, -12]} y={y} />
    </Paper>
  );
}

function sayMs(ms: number): string {
  if (ms === 0) return "now";
  return `${ms > 0 ? "+" : "−"}${Math.abs(ms)}${ms === MARKS_MS.at(-1) ? " ms" : ""}`;
}

/** How far sound goes in that time. */
function sayTravel(ms: number, { speed, ruler }: Props): string {
  return `${ms > 0 ? "+" : "−"}${lengthWithUnit((Math.abs(ms) * speed) / 1000, ruler)}`;
}

interface OnPaper {
  curve: DelayCurve;
  x: (s: number) => number;
  y: (db: number) => number;
}

/** Now, now with one flipped, and the best there is nearby. */
function Points({ curve, x, y }: OnPaper) {
  const best = curve.best_move;
  return (
    <g stroke="var(--panel)" strokeWidth="1.5">
      <circle cx={x(0)} cy={y(curve.now_db)} r="4.5" fill="var(--hollow)" data-now />
      <circle cx={x(0)} cy={y(curve.flipped_now_db)} r="4" fill="var(--ring)" />
      {Math.abs(best.later_s) > 1e-5 && (
        <circle
          cx={x(best.later_s)}
          cy={y(best.body_db)}
          r="3.5"
          fill="var(--panel)"
          stroke="var(--hollow)"
          data-best-move
        />
      )}
    </g>
  );
}

/** The delay at which both arrive together. */
function AtOnce({ x, low }: { x: number; low: number }) {
  return (
    <g>
      <line x1={x} x2={x} y1="10" y2={low} stroke="var(--soft)" strokeDasharray="2 3" />
      <Word x={x} y={8} size={9}>
        at once
      </Word>
    </g>
  );
}
