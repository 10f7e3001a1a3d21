/** The floor of a room as a drawing needs it, in room coordinates and in the kit's frame. */
import type { Room } from "../api/types";
import type { Point2, Point3 } from "./view";

/** Corners of the floor, counter-clockwise from the back left; an L has six. */
export function outlineOf(room: Room): Point2[] {
  const [w, d, n] = [room.width_m, room.length_m, room.notch];
  if (!n)
    return [
      [0, 0],
      [w, 0],
      [w, d],
      [0, d],
    ];
  const x = n.corner.endsWith("left") ? n.width_m : w - n.width_m;
  const y = n.corner.startsWith("back") ? n.length_m : d - n.length_m;
  const corners: Record<typeof n.corner, Point2[]> = {
    "back left": [
      [x, 0],
      [w, 0],
      [w, d],
      [0, d],
      [0, y],
      [x, y],
    ],
    "back right": [
      [0, 0],
      [x, 0],
      [x, y],
      [w, y],
      [w, d],
      [0, d],
    ],
    "front right": [
      [0, 0],
      [w, 0],
      [w, y],
      [x, y],
      [x, d],
      [0, d],
    ],
    "front left": [
      [0, 0],
      [w, 0],
      [w, d],
      [x, d],
      [x, y],
      [0, y],
    ],
  };
  return corners[n.corner];
}

/** The nearest spot that is not beyond its outer walls. */
export const inside = (room: Room, x: number, y: number): Point2 => [
  Math.max(0, Math.min(x, room.width_m)),
  Math.max(0, Math.min(y, room.length_m)),
];

/** The far corners of a room and of every space beside it. */
export function cornersOf(room: Room): Point3[] {
  const beside = room.spaces.flatMap((s): Point3[] => [
    [s.x_m, s.y_m, 0],
    [s.x_m + s.width_m, s.y_m + s.length_m, 0],
  ]);
  return [[0, 0, 0], [room.width_m, room.length_m, 0], ...beside];
}

/** A place of the room in the kit's frame, on the floor. */
export function toKit(room: Room, x: number, y: number): Point3 {
  const t = room.kit_turn_rad;
  const [c, s] = [Math.cos(t), Math.sin(t)];
  const [dx, dy] = [x - room.kit_x_m, y - room.kit_y_m];
  return [c * dx + s * dy, -s * dx + c * dy, 0];
}

/** A place of the kit's frame in the room. */
export function toRoom(room: Room, x: number, y: number): Point2 {
  const t = room.kit_turn_rad;
  const [c, s] = [Math.cos(t), Math.sin(t)];
  return [room.kit_x_m + c * x - s * y, room.kit_y_m + s * x + c * y];
}

/** Corners of a gobo, in room coordinates. */
export function goboCorners(gobo: Room["gobos"][number]): Point2[] {
  const [c, s] = [Math.cos(gobo.turn_rad), Math.sin(gobo.turn_rad)];
  const [w, t] = [gobo.width_m / 2, gobo.thickness_m / 2];
  const around: Point2[] = [
    [-w, -t],
    [w, -t],
    [w, t],
    [-w, t],
  ];
  return around.map(([u, v]) => [gobo.x_m + c * u - s * v, gobo.y_m + s * u + c * v]);
}
