/** Every drum on one line of notes, so that the steps between toms are seen as lengths. */
import type { Tuning } from "../../../api/types";
import { useNarrow } from "../../../parts/narrow";

/** At a desk, and on a phone: its letters are not to be smaller there. */
const WIDE = 560;
const ON_A_PHONE = 380;
const HIGH = 96;

/** Where a frequency stands on the line: equal steps for equal intervals. */
function scaleOf(hz: number[], wide: number): (f: number) => number {
  const [low, high] = [Math.log2(Math.min(...hz)) - 0.15, Math.log2(Math.max(...hz)) + 0.15];
  return (f) => 24 + ((Math.log2(f) - low) / (high - low)) * (wide - 48);
}

export function PitchLine({ tuning }: { tuning: Tuning }) {
  const wide = useNarrow() ? ON_A_PHONE : WIDE;
  const x = scaleOf(
    tuning.drums.map((d) => d.fundamental_hz),
    wide,
  );
  const rows = [...tuning.drums].sort((a, b) => a.fundamental_hz - b.fundamental_hz);
  const hzOf = (id: string) => tuning.drums.find((d) => d.id === id)?.fundamental_hz ?? 100;
  return (
    <svg viewBox={`0 0 ${wide} ${HIGH}`} className="w-full" aria-hidden="true">
      <line x1="8" x2={wide - 8} y1="52" y2="52" stroke="var(--hair)" strokeWidth="3" />
      {tuning.steps.map((s) => (
        <Interval key={`${s.high} ${s.low}`} step={s} a={x(hzOf(s.high))} b={x(hzOf(s.low))} />
      ))}
      {rows.map((d, i) => (
        <OneDrum key={d.id} drum={d} x={x(d.fundamental_hz)} high={i % 2 === 1} />
      ))}
    </svg>
  );
}

function Interval({ step, a, b }: { step: Tuning["steps"][number]; a: number; b: number }) {
  return (
    <g opacity={step.sure ? 1 : 0.55}>
      <path
        d={`M${a} 62v6H${b}v-6`}
        fill="none"
        stroke="var(--tom)"
        strokeDasharray={step.sure ? undefined : "3 3"}
      />
      <text x={(a + b) / 2} y="82" textAnchor="middle" fontSize="11" fill="var(--tom)">
        {step.words}
      </text>
    </g>
  );
}

/** Names stand at two heights in turn, so that neighbours stay apart. */
function OneDrum(props: { drum: Tuning["drums"][number]; x: number; high: boolean }) {
  const { drum, x, high } = props;
  return (
    <g>
      <line
        x1={x}
        x2={x}
        y1={high ? 20 : 34}
        y2="58"
        stroke="var(--ink)"
        strokeWidth={drum.known ? 2 : 1}
        strokeDasharray={drum.known ? undefined : "2 3"}
      />
      <text
        x={x}
        y={high ? 14 : 29}
        textAnchor="middle"
        fontSize="11.5"
        fontWeight="600"
        fill="var(--ink)"
      >
        {drum.name}
      </text>
    </g>
  );
}
