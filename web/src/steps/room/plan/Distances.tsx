/** From the snare to the wall in each direction, as the core found them. */
import { lengthWithUnit } from "../../../core/units";
import { type Point2, path } from "../../../core/view";
import type { PlanProps } from "./pose";

/** The words stand this far along, nearer the wall than the kit. */
const ALONG = 0.72;

interface Props extends PlanProps {
  to: (x: number, y: number) => Point2;
  /** The lines lie under the kit, their words over it. */
  show: "lines" | "words";
}

export function Distances(props: Props) {
  const { room, board, ruler, to, show } = props;
  const walls = board?.spots.here.walls_m;
  if (!walls || !("left" in walls)) return null; // outside, or not known where the hand has it
  const [x, y] = [room.kit_x_m, room.kit_y_m];
  const ends: Record<string, Point2> = {
    left: [x - (walls.left ?? 0), y],
    right: [x + (walls.right ?? 0), y],
    back: [x, y - (walls.back ?? 0)],
    front: [x, y + (walls.front ?? 0)],
  };
  const from = to(x, y);
  return (
    <g aria-hidden="true" pointerEvents="none">
      {Object.entries(ends).map(([name, end]) =>
        show === "lines" ? (
          <path
            key={name}
            d={path([from, to(...end)], false)}
            stroke="var(--snare)"
            strokeDasharray="2 4"
          />
        ) : (
          <Words
            key={name}
            name={name}
            from={from}
            end={to(...end)}
            label={lengthWithUnit(walls[name] ?? 0, ruler)}
          />
        ),
      )}
    </g>
  );
}

function Words(props: { name: string; from: Point2; end: Point2; label: string }) {
  const { name, from, end, label } = props;
  const [mx, my] = [from[0] + (end[0] - from[0]) * ALONG, from[1] + (end[1] - from[1]) * ALONG];
  const wide = label.length * 7 + 8;
  return (
    <g>
      <rect
        x={mx - wide / 2}
        y={my - 9}
        width={wide}
        height="17"
        rx="4"
        fill="var(--card)"
        fillOpacity="0.92"
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
