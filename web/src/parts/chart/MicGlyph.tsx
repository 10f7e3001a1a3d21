/** How a mic is drawn wherever it is drawn: a teardrop with its point to the front, and a plate. */
import type { Pose } from "../../core/micPose";
import type { Point2 } from "../../core/view";

interface TearProps extends Pose {
  colour: string;
  size?: number;
  edge?: string;
  /** Only shown, not taken yet. */
  fresh?: boolean;
}

/** Its point, two curves to its round back, and the radius of that. */
const BACK = 6.5;
const POINT: Point2 = [0, 0];
const WAIST: Point2 = [-6, -1.5];
const SHOULDER: Point2 = [-9, -BACK];
const TAIL: Point2 = [-14, -BACK];

/**
 * Drawn where it is, turned and squeezed: a mic with a transform of its own would be one more layer
 * to be put together at every frame of a drag.
 */
function tear(at: Point2, turn: number, sx: number, sy: number): string {
  const [cos, sin] = [Math.cos((turn * Math.PI) / 180), Math.sin((turn * Math.PI) / 180)];
  const put = ([x, y]: Point2, mirror = 1) => {
    const [u, v] = [x * sx, y * sy * mirror];
    return `${(at[0] + u * cos - v * sin).toFixed(2)} ${(at[1] + u * sin + v * cos).toFixed(2)}`;
  };
  const there = `C${put(WAIST)} ${put(SHOULDER)} ${put(TAIL)}`;
  const round = `A${BACK * sx} ${BACK * sy} ${turn} 0 0 ${put(TAIL, -1)}`;
  const back = `C${put(SHOULDER, -1)} ${put(WAIST, -1)} ${put(POINT)}`;
  return `M${put(POINT)}${there}${round}${back}Z`;
}

export function Tear({ at, turn, along, colour, size = 1, edge, fresh }: TearProps) {
  return (
    <path
      d={tear(at, turn, size * Math.max(0.6, along), size)}
      fill={fresh ? "var(--card)" : colour}
      stroke={fresh ? colour : (edge ?? "var(--paper)")}
      strokeWidth={(fresh ? 1.8 : 1.2) * size}
      strokeDasharray={fresh ? "3 2" : undefined}
    />
  );
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
