/** From the snare to the wall in each direction, as the core found them. */
import { lengthWithUnit } from "../../../core/units";
import type { Point2 } from "../../../core/view";
import type { PlanProps } from "./pose";

/** The words stand this far along, nearer the wall than the kit. */
const ALONG = 0.72;

export function Distances(props: PlanProps & { to: (x: number, y: number) => Point2 }) {
  const { room, board, ruler, to } = props;
  const walls = board?.spots.here.walls_m;
  if (!walls) return null;
  const [x, y] = [room.kit_x_m, room.kit_y_m];
  const ends: Record<string, Point2> = {
    left: [x - (walls.left ?? 0), y],
    right: [x + (walls.right ?? 0), y],
    back: [x, y - (walls.back ?? 0)],
    front: [x, y + (walls.front ?? 0)],
  };
  return (
    <g aria-hidden="true" pointerEvents="none">
      {Object.entries(ends).map(([name, end]) => (
        <OneWay
          key={name}
          name={name}
          from={to(x, y)}
          end={to(...end)}
          label={lengthWithUnit(walls[name] ?? 0, ruler)}
        />
      ))}
    </g>
  );
}

function OneWay(props: { name: string; from: Point2; end: Point2; label: string }) {
  const { name, from, end, label } = props;
  const [mx, my] = [from[0] + (end[0] - from[0]) * ALONG, from[1] + (end[1] - from[1]) * ALONG];
  const wide = label.length * 7 + 8;
  return (
    <g>
      <path
        d={`M${from[0]} ${from[1]}L${end[0]} ${end[1]}`}
        stroke="var(--snare)"
        strokeDasharray="2 4"
      />
      <rect
        x={mx - wide / 2}
        y={my - 9}
        width={wide}
        height="17"
        rx="4"
        fill="var(--card)"
        opacity="0.92"
      />
      <text
        x={mx}
        y={my + 4}
        textAnchor="middle"
        fontSize="11.5"
        className="num"
        fontWeight="600"
        fill="var(--snare)"
        data-wall={name}
      >
        {label}
      </text>
    </g>
  );
}
