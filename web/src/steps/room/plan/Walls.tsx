/** What is built: the walls, the doors in them, and the spaces beside. */
import { memo } from "react";
import type { Room } from "../../../api/types";
import { outlineOf } from "../../../core/roomShape";
import { type Point2, path, toScreen, type View } from "../../../core/view";

export const Walls = memo(function Walls({ room, view }: { room: Room; view: View }) {
  const to = (x: number, y: number): Point2 => toScreen([x, y, 0], view);
  const floor = outlineOf(room).map(([x, y]) => to(x, y));
  return (
    <g aria-hidden="true">
      {room.spaces.map((s) => (
        <SpaceShape key={s.id} space={s} view={view} />
      ))}
      <path
        d={path(floor)}
        fill="var(--card)"
        stroke="var(--ink)"
        strokeWidth="4"
        strokeLinejoin="miter"
      />
      {room.doors.map((d, i) => (
        <DoorShape key={i} door={d} room={room} to={to} />
      ))}
      <text
        x={to(room.width_m / 2, 0)[0]}
        y={to(0, 0)[1] + 18}
        textAnchor="middle"
        fontSize="11"
        fill="var(--soft)"
      >
        back wall, behind the drummer
      </text>
    </g>
  );
});

/** A space beside the room, its name along its longer side. */
function SpaceShape({ space, view }: { space: Room["spaces"][number]; view: View }) {
  const [x, y] = toScreen([space.x_m, space.y_m + space.length_m, 0], view);
  const [w, h] = [space.width_m * view.scale, space.length_m * view.scale];
  const [cx, cy] = [x + w / 2, y + h / 2];
  const upright = h > w * 1.3;
  return (
    <g>
      <rect {...{ x, y }} width={w} height={h} className="fill-tint stroke-soft" strokeWidth="2" />
      <text
        x={cx}
        y={cy}
        textAnchor="middle"
        fontSize="12"
        fill="var(--soft)"
        transform={upright ? `rotate(90 ${cx} ${cy})` : undefined}
      >
        {space.name}
      </text>
    </g>
  );
}

type Door = NonNullable<Room["doors"]>[number];

function DoorShape(props: { door: Door; room: Room; to: (x: number, y: number) => Point2 }) {
  const { door, room, to } = props;
  const along = door.wall === "back" || door.wall === "front";
  const fixed = { back: 0, front: room.length_m, left: 0, right: room.width_m }[door.wall];
  const end = door.at_m + door.width_m;
  const [a, b] = along
    ? [to(door.at_m, fixed), to(end, fixed)]
    : [to(fixed, door.at_m), to(fixed, end)];
  return (
    <line
      x1={a[0]}
      y1={a[1]}
      x2={b[0]}
      y2={b[1]}
      stroke={door.open ? "var(--tint)" : "var(--brass)"}
      strokeWidth="5"
    />
  );
}
