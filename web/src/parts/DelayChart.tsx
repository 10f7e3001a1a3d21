/** Body of a pair's sum over delay, as wired and flipped, with where the two stand now. */
import type { DelayCurve } from "../api/types";
import { lengthWithUnit, type Ruler } from "../core/units";
import { DbLines, DbWords } from "./DbScale";

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

export function DelayChart(props: Props) {
  const { curve, mover, speed, ruler, sure, width = 340, height = 124 } = props;
  const low = Math.min(-12, Math.max(-24, Math.min(...curve.wired_db, ...curve.flipped_db)));
  const top = 8;
  const x = (s: number) => ((s * 1000 + REACH_MS) / (2 * REACH_MS)) * width;
  const y = (db: number) => ((top - Math.max(db, low)) / (top - low)) * (height - FOOT);
  const line = (values: number[]) =>
    values
      .map((v, i) => `${i ? "L" : "M"}${x(curve.later_s[i] ?? 0).toFixed(1)} ${y(v).toFixed(1)}`)
      .join("");
  const best = curve.best_move;
  return (
    <svg
      viewBox={`0 0 ${width} ${height}`}
      className="block w-full"
      role="img"
      aria-label={`Body against delay: now ${curve.now_db.toFixed(1)} dB, flipped ${curve.flipped_now_db.toFixed(1)} dB. ${curve.words}`}
    >
      <DbLines levels={[6, 0, -6, -12, -18].filter((db) => db > low)} y={y} width={width} />
      {[-4, -2, 0, 2, 4].map((ms) => (
        <g key={ms} className="num" fontSize="9" textAnchor="middle" fill="var(--soft)">
          <text x={x(ms / 1000)} y={height - 15}>
            {ms > 0 ? `+${ms}` : ms < 0 ? `−${-ms}` : "now"}
            {ms === 4 ? " ms" : ""}
          </text>
          <text x={x(ms / 1000)} y={height - 3}>
            {ms === 0
              ? mover
              : `${ms > 0 ? "+" : "−"}${lengthWithUnit((Math.abs(ms) * speed) / 1000, ruler)}`}
          </text>
        </g>
      ))}
      <path
        d={line(curve.flipped_db)}
        fill="none"
        stroke="var(--ring)"
        strokeWidth="1.6"
        strokeDasharray="5 3"
      />
      <path
        d={line(curve.wired_db)}
        fill="none"
        stroke={sure ? "var(--hollow)" : "var(--ring)"}
        strokeWidth="2"
        strokeDasharray={sure ? undefined : "5 3"}
      />
      <line x1={x(0)} x2={x(0)} y1="0" y2={height - FOOT} stroke="var(--ink)" strokeWidth="1.2" />
      {sure && (
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
      )}
      {curve.equal_s !== null && Math.abs(curve.equal_s) > 1e-4 && (
        <g>
          <line
            x1={x(curve.equal_s)}
            x2={x(curve.equal_s)}
            y1="10"
            y2={height - FOOT}
            stroke="var(--soft)"
            strokeDasharray="2 3"
          />
          <text x={x(curve.equal_s)} y="8" fontSize="9" textAnchor="middle" fill="var(--soft)">
            at once
          </text>
        </g>
      )}
      <DbWords levels={[0, -12]} y={y} />
    </svg>
  );
}
