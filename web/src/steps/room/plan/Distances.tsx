/** From the snare to the wall in each direction, as the core found them. */
import { memo } from "react";
import type { Room } from "../../../api/types";
import { lengthWithUnit, type Ruler } from "../../../core/units";
import type { View } from "../../../core/view";
import { useShared } from "../../../parts/editing";
import { type Along, type PlanProps, snareAt, useCarried } from "./pose";

/** The words stand this far along, nearer the wall than the kit. */
const ALONG = 0.72;

interface Props extends Pick<PlanProps, "board" | "hand"> {
  /** As it is kept. */
  room: Room;
  view: View;
}

interface Way {
  name: string;
  /** Along the room; else across it. */
  upright: boolean;
  /** Where the wall is on the paper that way, pixels: it stays there while the kit is moved. */
  wall: number;
  far: number;
}

/** None outside, or where it is not known where the hand has the kit. */
function useWays({ board, hand, view, room }: Props): Way[] {
  const told = useShared(hand);
  const walls = (told?.here ?? board?.spots.here)?.walls_m;
  if (!walls || !("left" in walls)) return [];
  const [x, y] = snareAt(told?.room ?? room, view);
  const { left = 0, right = 0, back = 0, front = 0 } = walls;
  // Rounded, so that a wall that stands is not drawn anew for its last digit.
  const wall = (from: number, far: number) => Number((from + far * view.scale).toFixed(2));
  return [
    { name: "left", upright: false, wall: wall(x, -left), far: left },
    { name: "right", upright: false, wall: wall(x, right), far: right },
    { name: "back", upright: true, wall: wall(y, back), far: back },
    { name: "front", upright: true, wall: wall(y, -front), far: front },
  ];
}

/** They lie under the kit: one right across the room, one along it. */
export const Lines = memo(function Lines(props: Props) {
  const ways = useWays(props);
  return [false, true].map((upright) => (
    <Line
      key={String(upright)}
      {...props}
      upright={upright}
      walls={ways.filter((way) => way.upright === upright).map(({ wall }) => wall)}
    />
  ));
});

const sideways: Along = (now, kept) => [now[0] - kept[0], 0];
const upAndDown: Along = (now, kept) => [0, now[1] - kept[1]];

/** From wall to wall through the snare: with the kit it goes sideways only, as its ends stand. */
function Line(props: Props & { upright: boolean; walls: number[] }) {
  const { room, view, upright, walls } = props;
  const sheet = useCarried<SVGSVGElement>(room, view, upright ? sideways : upAndDown);
  const [x, y] = snareAt(room, view);
  // A sheet lies on whole pixels, whatever it is told.
  const [left, top] = [Math.floor(x), Math.floor(y)];
  const [from, to] = walls.map((wall) => wall - (upright ? top : left));
  const d = upright ? `M${x - left} ${from}V${to}` : `M${from} ${y - top}H${to}`;
  return (
    <svg
      ref={sheet}
      aria-hidden="true"
      width="1"
      height="1"
      className="pointer-events-none absolute overflow-visible will-change-transform"
      style={{ left, top }}
    >
      {walls.length === 2 && <path d={d} stroke="var(--snare)" strokeDasharray="2 4" />}
    </svg>
  );
}

/** They lie over it, each on a sheet of its own that is put elsewhere without being drawn. */
export const Labels = memo(function Labels({ ruler, ...props }: Props & { ruler: Ruler }) {
  const { room, view } = props;
  return useWays(props).map(({ name, upright, wall, far }) => (
    <Label key={name} {...{ room, view, name, upright, wall }} says={lengthWithUnit(far, ruler)} />
  ));
});

/** As high as a label is, and as wide as one of its letters, pixels. */
const HIGH = 17;
const LETTER = 7;

interface LabelProps extends Omit<Way, "far">, Pick<Props, "room" | "view"> {
  says: string;
}

const Label = memo(function Label({ room, view, name, says, upright, wall }: LabelProps) {
  const wide = says.length * LETTER + 8;
  const toWall = (from: number) => from + (wall - from) * ALONG;
  const sheet = useCarried<HTMLSpanElement>(room, view, ([x, y]) => {
    const [cx, cy] = upright ? [x, toWall(y)] : [toWall(x), y];
    return [cx - wide / 2, cy - HIGH / 2];
  });
  return (
    <span
      ref={sheet}
      aria-hidden="true"
      className="num pointer-events-none absolute top-0 left-0 rounded bg-card/92 text-center text-[11.5px] leading-[17px] font-semibold text-snare contain-strict will-change-transform"
      style={{ width: wide, height: HIGH }}
      data-wall={name}
    >
      {says}
    </span>
  );
});
