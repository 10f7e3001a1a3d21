/** A small plan of a layout for lists: drums, cymbals, mics, to scale. */
import type { Summary } from "../../api/types";

const COLOUR: Record<string, string> = {
  close: "var(--ink)",
  overhead: "var(--ring)",
  room: "var(--room)",
};

interface Props {
  summary: Pick<Summary, "drums" | "cymbals" | "mics">;
  name: string;
  /** The part of the floor that is drawn; the kit's own when not given. */
  box?: readonly [number, number, number, number];
  /** How high it stands on the page. */
  high?: string;
}

export function Sketch({ summary, name, box = [-0.8, -0.95, 2.1, 1.62], high = "h-44" }: Props) {
  const dot = 0.04 * Math.max(1, box[3] / 1.9);
  return (
    <svg
      viewBox={box.join(" ")}
      className={`${high} w-full`}
      role="img"
      aria-label={`Plan of ${name}`}
    >
      {summary.drums.map((d, i) => {
        const flat = Math.hypot(d.ax, d.ay) > 0.8;
        const turn = (Math.atan2(-d.ay, d.ax) * 180) / Math.PI;
        return flat ? (
          <rect
            key={i}
            x={-d.depth}
            y={-d.r}
            width={d.depth}
            height={2 * d.r}
            transform={`translate(${d.x} ${-d.y}) rotate(${turn})`}
            fill="var(--shell)"
            stroke="var(--ink)"
            strokeWidth="0.014"
          />
        ) : (
          <circle
            key={i}
            cx={d.x}
            cy={-d.y}
            r={d.r}
            fill="var(--shell)"
            stroke="var(--ink)"
            strokeWidth="0.014"
          />
        );
      })}
      {summary.cymbals.map((c, i) => (
        <circle
          key={i}
          cx={c.x}
          cy={-c.y}
          r={c.r}
          fill="var(--brass)"
          fillOpacity="0.15"
          stroke="var(--brass)"
          strokeWidth="0.01"
        />
      ))}
      {summary.mics.map((m) => (
        <circle
          key={m.id}
          cx={m.x}
          cy={-m.y}
          r={dot}
          fill={COLOUR[m.role] ?? "var(--ink)"}
          stroke="var(--panel)"
          strokeWidth="0.012"
        />
      ))}
    </svg>
  );
}
