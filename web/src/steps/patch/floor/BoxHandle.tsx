/** A box on the floor: dragged, moved by arrows, forgotten with Delete. */
import type { KeyboardEvent } from "react";
import type { InputBank, Room } from "../../../api/types";
import { toKit, toRoom } from "../../../core/roomShape";
import { lengthWithUnit } from "../../../core/units";
import { moved, type Point2, toScreen, type View } from "../../../core/view";
import { arrowOf, follow, STEP_M } from "../../../parts/handSizes";
import { useMe } from "../../../parts/me";
import { usePutBox } from "./useBoxes";

interface Props {
  bank: InputBank;
  /** In the kit's frame, metres. */
  at: Point2;
  room: Room;
  view: View;
  /** Whether there are walls to say a place by. */
  walls: boolean;
}

const [HIGH, LEAST] = [22, 44];

export function BoxHandle({ bank, at, room, view, walls }: Props) {
  const put = usePutBox();
  const ruler = useMe();
  const here = toRoom(room, ...at);
  const [x, y] = toScreen([...here, 0], view);
  const wide = Math.max(LEAST, bank.name.length * 7 + 16);
  const place = (spot: Point2, done: boolean) => {
    const [px, py] = walls ? within(spot, room) : spot;
    const [kx, ky] = toKit(room, px, py);
    put(bank.id, [kx, ky], done);
  };
  const key = (e: KeyboardEvent) => {
    const arrow = arrowOf(e);
    const size = STEP_M * (e.shiftKey ? 50 : e.altKey ? 1 : 10);
    if (arrow) place([here[0] + arrow[0] * size, here[1] - arrow[1] * size], true);
    else if (e.key === "Delete" || e.key === "Backspace") put(bank.id, null);
    else return;
    e.preventDefault();
  };
  const from = walls ? ["the left wall", "the back wall"] : ["the snare, to the right", "in front"];
  const said = here.map((m, i) => `${lengthWithUnit(m, ruler)} from ${from[i]}`).join(", ");
  return (
    <g
      role="button"
      tabIndex={0}
      data-box={bank.id}
      aria-label={`${bank.name}, ${said}. Arrows move it, Delete forgets it`}
      className="cursor-grab"
      transform={`translate(${x} ${y})`}
      onKeyDown={key}
      onPointerDown={(e) => {
        if (e.button !== 0) return;
        follow(e, (dx, dy, done) => {
          const [mx, my] = moved([...here, 0], dx, dy, view);
          place([mx, my], done);
        });
      }}
    >
      <rect
        x={-wide / 2}
        y={-HIGH / 2}
        width={wide}
        height={HIGH}
        rx="4"
        fill="var(--ink)"
        stroke="var(--card)"
        strokeWidth="2"
      />
      <text y="4" textAnchor="middle" fontSize="11.5" fontWeight="700" fill="var(--panel)">
        {bank.name}
      </text>
    </g>
  );
}

const within = ([x, y]: Point2, room: Room): Point2 => [
  Math.min(Math.max(x, 0), room.width_m),
  Math.min(Math.max(y, 0), room.length_m),
];
