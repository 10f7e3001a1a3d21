/** The pulses: each mic's first half-wave of one drum at its arrival, up or down, dashed if unsure. */
import type { Board, Layout } from "../api/types";
import { msText } from "../core/units";
import { micColour } from "../core/words";
import { useSize } from "./useSize";

interface Props {
  layout: Layout;
  board: Board;
  source: string;
  lit: string[];
  onHover: (id: string | null) => void;
}

const ROW = 33;
const LEFT = 62;
const SIGN = { "1": "+", "-1": "−", "0": "?" } as Record<string, string>;
const SAID = { "1": "first pushed", "-1": "first pulled", "0": "unsure" } as Record<string, string>;

export function Pulses({ layout, board, source, lit, onHover }: Props) {
  const [ref, { width }] = useSize<HTMLDivElement>();
  const k = board.sources.findIndex((s) => s.id === source);
  const band = board.sources[k];
  const rows = layout.mics
    .map((mic) => {
      const i = board.mic_ids.indexOf(mic.id);
      const at = board.arrival_s[i]?.[k] ?? 0;
      return { mic, at, sign: board.sign[i]?.[k] ?? 0, level: board.after_gain_db[i]?.[k] ?? -60 };
    })
    .sort((a, b) => a.at - b.at);
  const last = Math.max(4, ...rows.map((r) => r.at * 1000 + 1));
  const x = (ms: number) => LEFT + (ms / last) * (width - LEFT - 12);
  const ticks = Array.from({ length: Math.floor(last) + 1 }, (_, i) => i);
  // One wave is drawn an eighth of the axis long at least, so that its first half can be seen.
  const period = Math.max(last / 8, Math.min(last / 3, 1000 / ((band?.fundamental_hz ?? 200) * 6)));
  return (
    <div ref={ref} className="min-w-0">
      {width > 0 && (
        <svg
          width={width}
          height={rows.length * ROW + 24}
          role="group"
          aria-label="First half-waves by arrival"
        >
          {ticks.map((t) => (
            <g key={t} aria-hidden="true">
              <line
                x1={x(t)}
                x2={x(t)}
                y1={18}
                y2={rows.length * ROW + 22}
                stroke="var(--hair)"
                strokeWidth="0.8"
              />
              <text
                x={x(t)}
                y={11}
                fontSize="10"
                textAnchor="middle"
                className="num"
                fill="var(--soft)"
              >
                {t} ms
              </text>
            </g>
          ))}
          {rows.map((r, i) => {
            const y = 22 + i * ROW + ROW / 2;
            const on = lit.includes(r.mic.id);
            const colour = micColour(r.mic, layout);
            const high = Math.max(2.5, Math.min(13, 13 * 10 ** (Math.min(r.level, 0) / 26)));
            return (
              <g
                key={r.mic.id}
                role="img"
                aria-label={`${r.mic.id}: ${msText(r.at)} ms, ${SAID[r.sign]}`}
                onPointerEnter={() => onHover(r.mic.id)}
                onPointerLeave={() => onHover(null)}
              >
                {on && <rect x="0" y={y - ROW / 2} width={width} height={ROW} fill="var(--tint)" />}
                <line x1={LEFT} x2={width - 12} y1={y} y2={y} stroke="var(--hair)" />
                <rect
                  x="3"
                  y={y - 9}
                  width="34"
                  height="18"
                  rx="4"
                  fill={on ? colour : "var(--card)"}
                  stroke={colour}
                />
                <text
                  x="20"
                  y={y + 4}
                  fontSize="11"
                  fontWeight="700"
                  textAnchor="middle"
                  className="num"
                  fill={on ? "var(--on)" : "var(--ink)"}
                >
                  {r.mic.id}
                </text>
                <text
                  x="48"
                  y={y + 4}
                  fontSize="13"
                  textAnchor="middle"
                  className="num"
                  fill="var(--ink)"
                  data-sign={r.mic.id}
                >
                  {SIGN[r.sign]}
                </text>
                <line
                  x1={x(r.at * 1000)}
                  x2={x(r.at * 1000)}
                  y1={y - 11}
                  y2={y + 11}
                  stroke={colour}
                  strokeWidth="1.2"
                />
                <path
                  d={wave(r.at * 1000, r.sign || 1, high, period, last, x, y)}
                  fill="none"
                  stroke={colour}
                  strokeWidth="1.9"
                  strokeDasharray={r.sign ? undefined : "3 3"}
                />
              </g>
            );
          })}
        </svg>
      )}
    </div>
  );
}

function wave(
  at: number,
  sign: number,
  high: number,
  period: number,
  last: number,
  x: (ms: number) => number,
  y: number,
) {
  const steps: string[] = [];
  for (let t = 0; t <= period * 2.6 && at + t <= last; t += period / 24) {
    const v = Math.sin((2 * Math.PI * t) / period) * Math.exp(-t / (period * 0.9));
    steps.push(
      `${steps.length ? "L" : "M"}${x(at + t).toFixed(1)} ${(y - sign * high * v * 1.35).toFixed(1)}`,
    );
  }
  return steps.join("");
}
