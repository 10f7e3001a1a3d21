/** What the room does, drawn: decay by band, modes on a line, the low end at three heights. */
import type { RoomBoard } from "../../api/types";
import { hzText, lengthWithUnit, type Ruler } from "../../core/units";

const WIDE = 520;
const HIGH = 150;

/** Decay times in octave bands, Eyring as posts and Sabine as marks. */
export function DecayChart({ board }: { board: RoomBoard }) {
  const { bands_hz, eyring_s, sabine_s } = board.decay;
  const top = Math.max(...sabine_s, ...eyring_s, 0.3) * 1.1;
  const y = (s: number) => HIGH - 22 - (s / top) * (HIGH - 40);
  const x = (i: number) => 58 + i * ((WIDE - 86) / (bands_hz.length - 1));
  return (
    <svg viewBox={`0 0 ${WIDE} ${HIGH}`} className="w-full" aria-hidden="true">
      {[0, top / 2, top].map((s) => (
        <g key={s}>
          <line x1="38" x2={WIDE - 8} y1={y(s)} y2={y(s)} stroke="var(--hair)" />
          <text
            x="34"
            y={y(s) + 3}
            textAnchor="end"
            fontSize="10"
            className="num"
            fill="var(--soft)"
          >
            {s.toFixed(1)} s
          </text>
        </g>
      ))}
      {bands_hz.map((f, i) => (
        <g key={f}>
          <rect
            x={x(i) - 9}
            y={y(eyring_s[i] ?? 0)}
            width="18"
            height={HIGH - 22 - y(eyring_s[i] ?? 0)}
            rx="2"
            fill="var(--room)"
            fillOpacity="0.55"
          />
          <line
            x1={x(i) - 14}
            x2={x(i) + 14}
            y1={y(sabine_s[i] ?? 0)}
            y2={y(sabine_s[i] ?? 0)}
            stroke="var(--ink)"
            strokeWidth="1.5"
            strokeDasharray="3 2"
          />
          <text
            x={x(i)}
            y={HIGH - 7}
            textAnchor="middle"
            fontSize="10.5"
            className="num"
            fill="var(--soft)"
          >
            {hzText(f)}
          </text>
        </g>
      ))}
    </svg>
  );
}

const KIND_COLOUR: Record<string, string> = {
  axial: "var(--ink)",
  tangential: "var(--snare)",
  oblique: "var(--nomatter)",
  plan: "var(--ink)",
  upright: "var(--snare)",
  mixed: "var(--nomatter)",
};

const KIND_LENGTH: Record<string, number> = {
  axial: 70,
  plan: 70,
  tangential: 46,
  upright: 46,
  oblique: 26,
  mixed: 26,
};

/** Every mode as a stroke at its frequency: the longest strokes are the strongest. */
export function ModeChart({ board }: { board: RoomBoard }) {
  const [low, high] = [18, 200];
  const x = (f: number) => 12 + (Math.log(f / low) / Math.log(high / low)) * (WIDE - 24);
  const edge = Math.min(board.decay.schroeder_hz, high);
  return (
    <svg viewBox={`0 0 ${WIDE} 120`} className="w-full" aria-hidden="true">
      <rect
        x={x(edge)}
        y="6"
        width={Math.max(0, WIDE - 12 - x(edge))}
        height="84"
        fill="var(--tint)"
      />
      <line x1="8" x2={WIDE - 8} y1="90" y2="90" stroke="var(--ink)" strokeWidth="1.4" />
      {board.modes.map((m, i) => (
        <line
          key={i}
          x1={x(m.hz)}
          x2={x(m.hz)}
          y1="90"
          y2={90 - (KIND_LENGTH[m.kind] ?? 30)}
          stroke={KIND_COLOUR[m.kind] ?? "var(--ink)"}
          strokeWidth="1.5"
        />
      ))}
      {[20, 30, 50, 80, 120, 200].map((f, i) => (
        <text
          key={f}
          x={x(f)}
          y="106"
          textAnchor="middle"
          fontSize="10.5"
          className="num"
          fill="var(--soft)"
        >
          {i ? f : `${f} Hz`}
        </text>
      ))}
    </svg>
  );
}

const HEIGHTS = {
  kick: ["var(--kick)", undefined],
  snare: ["var(--snare)", "6 3"],
  overhead: ["var(--ring)", "2 3"],
} as const;

/** The boundary response where the kit stands, at three heights, to 300 Hz. */
export function LowEndChart({ board }: { board: RoomBoard }) {
  const { frequency_hz, curves } = board.spots;
  const [low, high] = [30, 300];
  const x = (f: number) => 34 + (Math.log(f / low) / Math.log(high / low)) * (WIDE - 46);
  const y = (db: number) => 64 - Math.max(-9, Math.min(9, db)) * 5.6;
  return (
    <svg viewBox={`0 0 ${WIDE} 140`} className="w-full" aria-hidden="true">
      {[6, 0, -6].map((db) => (
        <g key={db}>
          <line x1="30" x2={WIDE - 8} y1={y(db)} y2={y(db)} stroke="var(--hair)" />
          <text
            x="26"
            y={y(db) + 3}
            textAnchor="end"
            fontSize="10"
            className="num"
            fill="var(--soft)"
          >
            {db > 0 ? `+${db}` : db}
          </text>
        </g>
      ))}
      {Object.entries(curves).map(([name, values]) => {
        const [colour, dash] = HEIGHTS[name as keyof typeof HEIGHTS] ?? ["var(--ink)", undefined];
        const d = values
          .map(
            (v, i) => `${i ? "L" : "M"}${x(frequency_hz[i] ?? low).toFixed(1)} ${y(v).toFixed(1)}`,
          )
          .join("");
        return (
          <path
            key={name}
            d={d}
            fill="none"
            stroke={colour}
            strokeDasharray={dash}
            strokeWidth="2"
          />
        );
      })}
      {[30, 50, 80, 120, 200, 300].map((f, i) => (
        <text
          key={f}
          x={x(f)}
          y="134"
          textAnchor="middle"
          fontSize="10.5"
          className="num"
          fill="var(--soft)"
        >
          {i ? f : `${f} Hz`}
        </text>
      ))}
    </svg>
  );
}

/** The room's figures in one row, biggest first. */
export function Figures({ board, ruler }: { board: RoomBoard; ruler: Ruler }) {
  const d = board.decay;
  const rows = [
    [`${d.mid_s.toFixed(2)} s`, "decay in the middle, Eyring"],
    [`${d.schroeder_hz.toFixed(0)} Hz`, "Schroeder: below it single modes"],
    [lengthWithUnit(d.critical_m, ruler), "critical distance, omni"],
    [`${d.volume_m3.toFixed(0)} m³`, `${d.surface_m2.toFixed(0)} m² of surface`],
  ] as const;
  return (
    <dl className="grid grid-cols-2 gap-x-3 gap-y-2">
      {rows.map(([value, name]) => (
        <div key={name}>
          <dd
            className="num text-[1.25rem] leading-tight font-bold"
            data-figure={name.split(":")[0]}
          >
            {value}
          </dd>
          <dt className="text-[0.78rem] text-soft">{name}</dt>
        </div>
      ))}
    </dl>
  );
}
