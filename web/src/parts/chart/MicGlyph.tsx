/** How a mic is drawn wherever it is drawn: a teardrop with its point to the front, and a plate. */
import type { Mic } from "../../api/types";
import { type Point2, type Point3, toScreen, type View } from "../../core/view";

interface TearProps {
  at: Point2;
  /** Degrees on the paper, clockwise from the right. */
  turn: number;
  /** How much of its length is seen: 1 across the view, 0 along it. */
  along: number;
  colour: string;
  size?: number;
  edge?: string;
  /** Only shown, not taken yet. */
  fresh?: boolean;
}

export function Tear({ at, turn, along, colour, size = 1, edge, fresh }: TearProps) {
  return (
    <g
      transform={`translate(${at[0]} ${at[1]}) rotate(${turn}) scale(${size * Math.max(0.6, along)} ${size})`}
    >
      <path
        d="M0 0C-6 -1.5 -9 -6.5 -14 -6.5A6.5 6.5 0 0 0 -14 6.5C-9 6.5 -6 1.5 0 0Z"
        fill={fresh ? "var(--card)" : colour}
        stroke={fresh ? colour : (edge ?? "var(--paper)")}
        strokeWidth={fresh ? 1.8 : 1.2}
        strokeDasharray={fresh ? "3 2" : undefined}
      />
    </g>
  );
}

/** A place some way ahead of a mic. */
export function ahead(mic: Mic, by: number): Point3 {
  const [p, a] = [mic.position_m, mic.aim];
  return [p[0] + a[0] * by, p[1] + a[1] * by, p[2] + a[2] * by];
}

/** Where a mic stands in a view, how it is turned there, and how much of its length is seen. */
export function poseOf(mic: Mic, view: View): Pick<TearProps, "at" | "turn" | "along"> {
  const at = toScreen(mic.position_m, view);
  const front = toScreen(ahead(mic, 1), view);
  return {
    at,
    turn: (Math.atan2(front[1] - at[1], front[0] - at[0]) * 180) / Math.PI,
    along: Math.hypot(front[0] - at[0], front[1] - at[1]) / view.scale,
  };
}

interface PlateProps {
  name: string;
  x: number;
  y: number;
  wide: number;
  on: boolean;
  colour: string;
  edge?: string;
  heavy?: boolean;
  dashed?: boolean;
}

export function Plate({ name, x, y, wide, on, colour, edge, heavy, dashed }: PlateProps) {
  return (
    <>
      <rect
        x={x - wide / 2}
        y={y - 9.5}
        width={wide}
        height="19"
        rx="4.5"
        fill={on ? colour : "var(--card)"}
        stroke={edge ?? (on ? colour : "var(--ink)")}
        strokeWidth={heavy ? 2.2 : 1}
        strokeDasharray={dashed ? "3 2" : undefined}
      />
      <text
        x={x}
        y={y + 4}
        textAnchor="middle"
        fontSize="11.5"
        fontWeight="700"
        className="num"
        fill={on ? "var(--on)" : "var(--ink)"}
      >
        {name}
      </text>
    </>
  );
}

/** As wide as a name needs. */
export const plateWide = (name: string) => Math.max(34, name.length * 9 + 12);
