/** The room from above: walls, doors, spaces, gobos, the kit to drag and turn, spots to try. */
import { memo, type ReactNode, useEffect, useState } from "react";
import type { Layout, Room, RoomBoard, SpotTried } from "../../api/types";
import { goboCorners, outlineOf, toRoom } from "../../core/roomShape";
import { lengthWithUnit, type Ruler } from "../../core/units";
import {
  fitted,
  moved,
  type Point2,
  type Point3,
  path,
  toScreen,
  type View,
} from "../../core/view";
import { arrowOf, follow, STEP_M } from "../../parts/hands";
import { useSize } from "../../parts/useSize";

export interface Pose {
  x: number;
  y: number;
  turn: number;
}

interface Props {
  layout: Layout;
  room: Room;
  board: RoomBoard | undefined;
  tried: SpotTried[];
  ruler: Ruler;
  showMap: boolean;
  onPose: (pose: Pose, done: boolean) => void;
  onNudge: (by: Pose) => void;
}

const TURN_STEP = Math.PI / 36;

export function RoomPlan(props: Props) {
  const { room, layout } = props;
  const [ref, size] = useSize<HTMLDivElement>();
  const [view, setView] = useState<View>({
    facing: "above",
    side: "drummer",
    middle: [0, 0],
    scale: 0,
    ...size,
  });
  const spaces = room.spaces;
  const bounds = [
    [0, 0, room.width_m, room.length_m],
    ...spaces.map((s) => [s.x_m, s.y_m, s.x_m + s.width_m, s.y_m + s.length_m]),
  ].flat();
  const key = bounds.map((v) => v.toFixed(3)).join(" ");
  // biome-ignore lint/correctness/useExhaustiveDependencies: fits when paper or walls change, not as the kit moves
  useEffect(() => {
    if (!size.width) return;
    const corners: Point3[] = [];
    for (let i = 0; i < bounds.length; i += 2)
      corners.push([bounds[i] ?? 0, bounds[i + 1] ?? 0, 0]);
    setView(fitted(corners, { ...view, ...size }, 46));
  }, [size.width, size.height, key]);
  const to = (x: number, y: number): Point2 => toScreen([x, y, 0], view);
  return (
    <div ref={ref} className="relative min-h-0 flex-1 overflow-hidden">
      {view.scale > 0 && (
        <svg
          width={size.width}
          height={size.height}
          role="group"
          aria-label={`Plan of ${room.name}`}
          className="absolute inset-0 touch-none select-none"
        >
          <Walls room={room} view={view} />
          {props.showMap && <SpotMap board={props.board} view={view} />}
          <Distances {...props} to={to} />
          <KitInRoom layout={layout} room={room} view={view} />
          <Tried tried={props.tried} room={room} to={to} />
          <KitHandle {...props} view={view} />
        </svg>
      )}
    </div>
  );
}

const Walls = memo(function Walls({ room, view }: { room: Room; view: View }) {
  const to = (x: number, y: number): Point2 => toScreen([x, y, 0], view);
  const floor = outlineOf(room).map(([x, y]) => to(x, y));
  return (
    <g aria-hidden="true">
      {room.spaces.map((s) => {
        const [x, y] = to(s.x_m, s.y_m + s.length_m);
        const [w, h] = [s.width_m * view.scale, s.length_m * view.scale];
        const upright = h > w * 1.3;
        const [cx, cy] = [x + w / 2, y + h / 2];
        return (
          <g key={s.id}>
            <rect
              x={x}
              y={y}
              width={w}
              height={h}
              fill="var(--tint)"
              stroke="var(--soft)"
              strokeWidth="2"
            />
            <text
              x={cx}
              y={cy}
              textAnchor="middle"
              fontSize="12"
              fill="var(--soft)"
              transform={upright ? `rotate(90 ${cx} ${cy})` : undefined}
            >
              {s.name}
            </text>
          </g>
        );
      })}
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
      {room.gobos.map((g, i) => (
        <path
          key={i}
          d={path(goboCorners(g).map(([x, y]) => to(x, y)))}
          fill="var(--room)"
          fillOpacity="0.35"
          stroke="var(--room)"
        />
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

const SpotMap = memo(function SpotMap({
  board,
  view,
}: {
  board: RoomBoard | undefined;
  view: View;
}) {
  return (
    <g aria-hidden="true" pointerEvents="none">
      {board?.spots.spots.map((s) => {
        const [x, y] = toScreen([s.x_m, s.y_m, 0], view);
        const r = Math.max(1.5, 7 - s.roughness_db * 1.6);
        return s.smooth ? (
          <circle
            key={`${s.x_m} ${s.y_m}`}
            cx={x}
            cy={y}
            r={r}
            fill="var(--ring)"
            fillOpacity="0.75"
          />
        ) : (
          <circle
            key={`${s.x_m} ${s.y_m}`}
            cx={x}
            cy={y}
            r={r}
            fill="none"
            stroke="var(--nomatter)"
            strokeWidth="1.4"
          />
        );
      })}
    </g>
  );
});

function Tried(props: { tried: SpotTried[]; room: Room; to: (x: number, y: number) => Point2 }) {
  return (
    <g aria-hidden="true">
      {props.tried
        .filter((t) => t.room === props.room.name)
        .map((t) => {
          const [x0, y0] = props.to(t.x_m, t.y_m);
          const [x, y] = [x0 - 17, y0 + 17]; // beside the spot, which the kit may stand on
          return (
            <g key={t.id}>
              <rect
                x={x - 9}
                y={y - 9}
                width="18"
                height="18"
                rx="4"
                fill="var(--card)"
                stroke="var(--kick)"
                strokeWidth="1.6"
              />
              <text
                x={x}
                y={y + 4}
                textAnchor="middle"
                fontSize="11"
                fontWeight="700"
                className="num"
                fill="var(--kick)"
              >
                {t.rating}
              </text>
            </g>
          );
        })}
    </g>
  );
}

/** From the snare to the wall in each direction, as the core found them. */
function Distances(props: Props & { to: (x: number, y: number) => Point2 }) {
  const { room, board, ruler, to } = props;
  const walls = board?.spots.walls_m;
  if (!walls) return null;
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
      {Object.entries(ends).map(([name, end]) => {
        const [ex, ey] = to(end[0], end[1]);
        const [mx, my] = [from[0] + (ex - from[0]) * 0.72, from[1] + (ey - from[1]) * 0.72];
        const label = lengthWithUnit(walls[name] ?? 0, ruler);
        const wide = label.length * 7 + 8;
        return (
          <g key={name}>
            <line
              x1={from[0]}
              y1={from[1]}
              x2={ex}
              y2={ey}
              stroke="var(--snare)"
              strokeWidth="1"
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
      })}
    </g>
  );
}

function KitInRoom({ layout, room, view }: { layout: Layout; room: Room; view: View }) {
  const to = (x: number, y: number): Point2 => {
    const [rx, ry] = toRoom(room, x, y);
    return toScreen([rx, ry, 0], view);
  };
  const shapes: ReactNode[] = [];
  const rug = layout.kit.rug;
  if (rug) {
    const [x, y, w, l] = [rug.centre_m[0], rug.centre_m[1], rug.width_m / 2, rug.length_m / 2];
    const corners = [to(x - w, y - l), to(x + w, y - l), to(x + w, y + l), to(x - w, y + l)];
    shapes.push(<path key="rug" d={path(corners)} fill="var(--rug)" stroke="var(--hair)" />);
  }
  for (const d of layout.kit.drums) {
    const r = d.diameter_m / 2;
    const [ax, ay] = [d.axis[0], d.axis[1]];
    if (Math.hypot(ax, ay) > 0.8) {
      const [x, y] = [d.batter_m[0], d.batter_m[1]];
      const [bx, by] = [x - ax * d.depth_m, y - ay * d.depth_m];
      const side: Point2 = [-ay * r, ax * r];
      const corners = [
        to(x + side[0], y + side[1]),
        to(bx + side[0], by + side[1]),
        to(bx - side[0], by - side[1]),
        to(x - side[0], y - side[1]),
      ];
      shapes.push(
        <path
          key={d.id}
          d={path(corners)}
          fill="var(--shell)"
          stroke="var(--ink)"
          strokeWidth="1.4"
        />,
      );
      continue;
    }
    const [x, y] = to(d.batter_m[0], d.batter_m[1]);
    shapes.push(
      <circle
        key={d.id}
        cx={x}
        cy={y}
        r={r * view.scale}
        fill="var(--shell)"
        stroke="var(--ink)"
        strokeWidth="1.4"
      />,
    );
  }
  for (const c of layout.kit.cymbals ?? []) {
    const [x, y] = to(c.centre_m[0], c.centre_m[1]);
    shapes.push(
      <circle
        key={c.id}
        cx={x}
        cy={y}
        r={(c.diameter_m / 2) * view.scale}
        fill="var(--brass)"
        fillOpacity="0.12"
        stroke="var(--brass)"
      />,
    );
  }
  const stool = layout.kit.stool;
  if (stool) {
    const [x, y] = to(stool.position_m[0], stool.position_m[1]);
    shapes.push(<circle key="stool" cx={x} cy={y} r={0.15 * view.scale} fill="var(--hair)" />);
  }
  for (const m of layout.mics.filter((mic) => mic.role !== "close")) {
    const [x, y] = to(m.position_m[0], m.position_m[1]);
    shapes.push(
      <g key={`mic ${m.id}`}>
        <circle cx={x} cy={y} r="4" fill={m.role === "room" ? "var(--room)" : "var(--ring)"} />
        <text x={x + 7} y={y + 4} fontSize="11" fontWeight="700" className="num" fill="var(--ink)">
          {m.id}
        </text>
      </g>,
    );
  }
  return (
    <g aria-hidden="true" pointerEvents="none">
      {shapes}
    </g>
  );
}

/** Take the kit by the snare to move it, by the handle in front to turn it. */
function KitHandle(props: Props & { view: View }) {
  const { room, view, ruler, onPose, onNudge } = props;
  const turn = room.kit_turn_rad;
  const here = toScreen([room.kit_x_m, room.kit_y_m, 0], view);
  const reach = 1.25;
  const [hx, hy] = toRoom(room, 0.25, reach);
  const handle = toScreen([hx, hy, 0], view);
  const degrees = Math.round((turn * 180) / Math.PI);
  return (
    <g>
      <g
        role="button"
        tabIndex={0}
        data-kit
        aria-label={`The kit: its snare ${lengthWithUnit(room.kit_x_m, ruler)} from the left wall, ${lengthWithUnit(room.kit_y_m, ruler)} from the back wall, turned ${degrees}°. Arrows move it, Page Up and Page Down turn it`}
        className="cursor-grab"
        onKeyDown={(e) => {
          const size = STEP_M * (e.shiftKey ? 10 : e.altKey ? 0.1 : 5);
          const arrow = arrowOf(e);
          if (arrow) {
            e.preventDefault();
            onNudge({ x: arrow[0] * size, y: -arrow[1] * size, turn: 0 });
          } else if (e.key === "PageUp" || e.key === "PageDown") {
            e.preventDefault();
            onNudge({ x: 0, y: 0, turn: e.key === "PageUp" ? TURN_STEP : -TURN_STEP });
          }
        }}
        onPointerDown={(e) => {
          if (e.button !== 0) return;
          const from: Point3 = [room.kit_x_m, room.kit_y_m, 0];
          follow(e, (dx, dy, done) => {
            const [x, y] = moved(from, dx, dy, view);
            onPose({ x, y, turn }, done);
          });
        }}
      >
        <circle cx={here[0]} cy={here[1]} r="26" fill="transparent" />
        <circle
          cx={here[0]}
          cy={here[1]}
          r="7"
          fill="var(--snare)"
          stroke="var(--card)"
          strokeWidth="2"
        />
      </g>
      <g
        className="cursor-crosshair"
        data-turn
        onPointerDown={(e) => {
          if (e.button !== 0) return;
          const began = Math.atan2(here[1] - handle[1], handle[0] - here[0]);
          follow(e, (dx, dy, done) => {
            const now = Math.atan2(here[1] - (handle[1] + dy), handle[0] + dx - here[0]);
            onPose({ x: room.kit_x_m, y: room.kit_y_m, turn: turn + now - began }, done);
          });
        }}
      >
        <line
          x1={here[0]}
          y1={here[1]}
          x2={handle[0]}
          y2={handle[1]}
          stroke="var(--ink)"
          strokeDasharray="2 3"
          pointerEvents="none"
        />
        <circle
          cx={handle[0]}
          cy={handle[1]}
          r="6"
          fill="var(--card)"
          stroke="var(--ink)"
          strokeWidth="1.5"
        />
        <circle cx={handle[0]} cy={handle[1]} r="14" fill="transparent" />
      </g>
    </g>
  );
}
