/** The sum of two mics over frequency, as wired and with one flipped, with the body band. */
import type { Focus } from "../api/types";
import { DbLines, DbWords } from "./DbScale";

interface Props {
  /** False while the sign is unsure: neither line is then the one as wired. */
  sure: boolean;
  focus: Focus;
  bodyLow: number;
  bodyHigh: number;
  width?: number;
  height?: number;
}

const [F0, F1] = [30, 16000];
const [TOP, BOTTOM] = [8, -30];
const LEVELS = [0, -12, -24];

export function SumCurve({ sure, focus, bodyLow, bodyHigh, width = 250, height = 110 }: Props) {
  const x = (f: number) => (Math.log(f / F0) / Math.log(F1 / F0)) * width;
  const y = (db: number) => ((TOP - Math.max(db, BOTTOM)) / (TOP - BOTTOM)) * (height - 16);
  const line = (values: number[]) =>
    values
      .map((v, i) => `${i ? "L" : "M"}${x(focus.curve_hz[i] ?? F0).toFixed(1)} ${y(v).toFixed(1)}`)
      .join("");
  const [from, to] = [x(Math.max(bodyLow, F0)), x(bodyHigh)];
  return (
    <svg
      viewBox={`0 0 ${width} ${height}`}
      className="block w-full"
      role="img"
      aria-label={`Sum of ${focus.a} and ${focus.b} over frequency, as wired and with one flipped`}
    >
      <rect x={from} y="0" width={Math.max(2, to - from)} height={height - 16} fill="var(--tint)" />
      <text x={(from + to) / 2} y={height - 20} fontSize="9" textAnchor="middle" fill="var(--soft)">
        body
      </text>
      <DbLines levels={LEVELS} y={y} width={width} />
      {[100, 1000, 10000].map((f) => (
        <text
          key={f}
          x={x(f)}
          y={height - 3}
          fontSize="9"
          textAnchor="middle"
          className="num"
          fill="var(--soft)"
        >
          {f < 1000 ? f : `${f / 1000} k`}
        </text>
      ))}
      <path
        d={line(focus.flipped_curve_db)}
        fill="none"
        stroke="var(--ring)"
        strokeWidth="1.6"
        strokeDasharray="5 3"
      />
      <path
        d={line(focus.curve_db)}
        fill="none"
        stroke={sure ? "var(--hollow)" : "var(--ring)"}
        strokeDasharray={sure ? undefined : "5 3"}
        strokeWidth="2"
      />
      <DbWords levels={LEVELS} y={y} />
    </svg>
  );
}

/** What the two lines are; without a mic the sign is unsure. */
export function CurveLegend({ mic }: { mic: string | null }) {
  if (!mic)
    return (
      <p className="text-[0.8rem] text-soft">
        Pushed alike or opposite: only the ear or a test take tells which line holds.
      </p>
    );
  return (
    <p className="flex gap-4 text-[0.8rem] text-soft">
      <span className="inline-flex items-center gap-1.5">
        <span className="inline-block w-5 border-t-2 border-hollow" /> as wired
      </span>
      <span className="inline-flex items-center gap-1.5">
        <span className="inline-block w-5 border-t-2 border-dashed border-ring" /> {mic} flipped
      </span>
    </p>
  );
}
