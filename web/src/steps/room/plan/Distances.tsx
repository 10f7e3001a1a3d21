/** From the snare to the wall in each direction, as the core found them. */
import { memo } from "react";
import type { Room } from "../../../api/types";
import { lengthWithUnit, type Ruler } from "../../../core/units";
import { type Point2, toScreen, type View } from "../../../core/view";
import { useShared } from "../../../parts/editing";
import { type PlanProps, useHeldRoom } from "./pose";

/** The words stand this far along, nearer the wall than the kit. */
const ALONG = 0.72;

interface Props extends Pick<PlanProps, "board" | "hand"> {
  /** As it is kept. */
  room: Room;
  view: View;
}

interface Way {
  name: string;
  from: Point2;
  end: Point2;
  far: number;
}

/** None outside, or where it is not known where the hand has the kit. */
function useWays({ room, board, hand, view }: Props): Way[] {
  const { kit_x_m: x, kit_y_m: y } = useHeldRoom(room);
  const here = useShared(hand) ?? board?.spots.here;
  const walls = here?.walls_m;
  if (!walls || !("left" in walls)) return [];
  const { left = 0, right = 0, back = 0, front = 0 } = walls;
  const to = (x: number, y: number) => toScreen([x, y, 0], view);
  const from = to(x, y);
  return [
    { name: "left", from, end: to(x - left, y), far: left },
    { name: "right", from, end: to(x + right, y), far: right },
    { name: "back", from, end: to(x, y - back), far: back },
    { name: "front", from, end: to(x, y + front), far: front },
  ];
}

/** They lie under the kit: each way across and along on a strip, moved and hardly ever painted. */
export const Lines = memo(function Lines(props: Props) {
  const { width, height } = props.view;
  const ways = useWays(props);
  const [x, y] = ways[0]?.from ?? [0, 0];
  const strip = "pointer-events-none absolute top-0 left-0 will-change-transform";
  if (!ways.length) return null;
  return (
    <>
      <svg
        {...{ width }}
        height={STRIP}
        aria-hidden="true"
        className={strip}
        style={{ transform: `translateY(${y - STRIP / 2}px)` }}
      >
        {ways.filter(across).map(({ name, end }) => (
          <Line key={name} d={`M${x} ${STRIP / 2}H${end[0]}`} />
        ))}
      </svg>
      <svg
        {...{ height }}
        width={STRIP}
        aria-hidden="true"
        className={strip}
        style={{ transform: `translateX(${x - STRIP / 2}px)` }}
      >
        {ways
          .filter((way) => !across(way))
          .map(({ name, end }) => (
            <Line key={name} d={`M${STRIP / 2} ${y}V${end[1]}`} />
          ))}
      </svg>
    </>
  );
});

const STRIP = 3;

const across = ({ name }: Way) => name === "left" || name === "right";

function Line({ d }: { d: string }) {
  return <path d={d} stroke="var(--snare)" strokeDasharray="2 4" />;
}

/** They lie over it. */
export const Labels = memo(function Labels({ ruler, ...props }: Props & { ruler: Ruler }) {
  return (
    <g aria-hidden="true" pointerEvents="none">
      {useWays(props).map(({ name, from, end, far }) => (
        <g
          key={name}
          transform={`translate(${from.map((f, i) => f + ((end[i] ?? f) - f) * ALONG).join(" ")})`}
        >
          <Label name={name} says={lengthWithUnit(far, ruler)} />
        </g>
      ))}
    </g>
  );
});

/** Round where it is put, so that one that only moves is not written anew. */
const Label = memo(function Label({ name, says }: { name: string; says: string }) {
  const wide = says.length * 7 + 8;
  return (
    <>
      <rect
        x={-wide / 2}
        y={-9}
        width={wide}
        height="17"
        rx="4"
        fill="var(--card)"
        fillOpacity="0.92"
      />
      <text
        y={4}
        textAnchor="middle"
        fontSize="11.5"
        className="num"
        fontWeight="600"
        fill="var(--snare)"
        data-wall={name}
      >
        {says}
      </text>
    </>
  );
});
