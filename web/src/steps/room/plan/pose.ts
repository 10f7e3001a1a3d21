/** Where the kit stands in its room and how it is turned, and what the plan of it is given. */
import type { Layout, Room, RoomBoard, SpotTried } from "../../../api/types";
import type { Ruler } from "../../../core/units";
import type { GoboChange } from "./GoboHandles";

export interface Pose {
  x: number;
  y: number;
  turn: number;
}

export interface PlanProps {
  layout: Layout;
  /** Without what the hand is just doing: mics of the room stay where they stand. */
  still: Layout;
  room: Room;
  board: RoomBoard | undefined;
  tried: SpotTried[];
  ruler: Ruler;
  showMap: boolean;
  onPose: (pose: Pose, done: boolean) => void;
  onNudge: (by: Pose) => void;
  onGobo: (index: number, change: GoboChange, done: boolean) => void;
}
