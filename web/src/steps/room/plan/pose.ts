/** Where the kit stands in its room and how it is turned, and what the plan of it is given. */
import type { Layout, Room, RoomBoard, SpotTried } from "../../../api/types";
import type { Ruler } from "../../../core/units";
import type { Point2, View } from "../../../core/view";
import { useEditorPart } from "../../../parts/editing";
import type { HandHere } from "../useHere";
import type { GoboChange } from "./GoboHandles";

export interface Pose {
  x: number;
  y: number;
  turn: number;
}

export interface PlanProps {
  /** Without what the hand is just doing: what it holds is moved on the drawing of it. */
  layout: Layout;
  /** That layout's. */
  room: Room;
  board: RoomBoard | undefined;
  hand: HandHere;
  tried: SpotTried[];
  ruler: Ruler;
  showMap: boolean;
  onPose: (pose: Pose, done: boolean) => void;
  onNudge: (by: Pose) => void;
  onGobo: (index: number, change: GoboChange, done: boolean) => void;
}

/** Where the hand has the kit; who asks is drawn anew at every move, so it is asked far down. */
export function useHeldRoom(kept: Room): Room {
  return useEditorPart((s) => s.doc.room) ?? kept;
}

/** How far the kit has been carried from where it is kept, pixels. */
export function carried(kept: Room, held: Room, view: View): Point2 {
  return [(held.kit_x_m - kept.kit_x_m) * view.scale, (kept.kit_y_m - held.kit_y_m) * view.scale];
}
