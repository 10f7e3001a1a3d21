/** From the snare to the wall in each direction, as the core found them. */
import { memo } from "react";
import type { Room } from "../../../api/types";
import { lengthWithUnit, type Ruler } from "../../../core/units";
import type { Point2, View } from "../../../core/view";
import { useShared } from "../../../parts/editing";
import { carryPart, carrySheet, type PlanProps, snareAt, useCarried } from "./pose";

/** The words stand this far along, nearer the wall than the kit. */
const ALONG = 0.72;

interface Props extends Pick<PlanProps, "board" | "hand"> {
  /** As it is kept. */
  room: Room;
  view: View;
}

interface Way {
  name: string;
  /** From the snare to the wall, pixels. */
  to: Point2;
  far: number;
}

/** None outside, or where it is not known where the hand has the kit. */
function useWays({ board, hand, view }: Props): Way[] {
  const here = useShared(hand) ?? board?.spots.here;
  const walls = here?.walls_m;
  if (!walls || !("left" in walls)) return [];
  const { left = 0, right = 0, back = 0, front = 0 } = walls;
  const px = (m: number) => m * view.scale;
  return [
    { name: "left", to: [-px(left), 0], far: left },
    { name: "right", to: [px(right), 0], far: right },
    { name: "back", to: [0, px(back)], far: back },
    { name: "front", to: [0, -px(front)], far: front },
  ];
}

/** They lie under the kit, each way across and along on a sheet no wider than its lines. */
export const Lines = memo(function Lines(props: Props) {
  const ways = useWays(props);
  const along = ([x]: Point2) => x === 0;
  return (
    <>
      <Strip {...props} ways={ways.filter(({ to }) => !along(to))} />
      <Strip {...props} ways={ways.filter(({ to }) => along(to))} />
    </>
  );
});

function Strip({ room, view, ways }: Props & { ways: Way[] }) {
  const sheet = useCarried(room, view, carrySheet);
  const [x, y] = snareAt(room, view);
  // A sheet lies on whole pixels, whatever it is told.
  const [left, top] = [Math.floor(x), Math.floor(y)];
  return (
    <svg
      ref={sheet}
      aria-hidden="true"
      width="1"
      height="1"
      className="pointer-events-none absolute overflow-visible will-change-transform"
      style={{ left, top }}
    >
      {ways.map(({ name, to }) => (
        <path
          key={name}
          d={`M${x - left} ${y - top}l${to.join(" ")}`}
          stroke="var(--snare)"
          strokeDasharray="2 4"
        />
      ))}
    </svg>
  );
}

/** They lie over it. */
export const Labels = memo(function Labels({ ruler, ...props }: Props & { ruler: Ruler }) {
  const { room, view } = props;
  const part = useCarried(room, view, carryPart);
  const [x, y] = snareAt(room, view);
  return (
    <g ref={part} aria-hidden="true" pointerEvents="none">
      {useWays(props).map(({ name, to, far }) => (
        <g key={name} transform={`translate(${x + to[0] * ALONG} ${y + to[1] * ALONG})`}>
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
