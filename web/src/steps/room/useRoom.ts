/** The room under the hand, and what it does to sound. */
import { useQuery } from "@tanstack/react-query";
import { useCallback, useMemo } from "react";
import { api, exactly } from "../../api/client";
import type { Layout, Materials, RoomBoard, Room as RoomDoc } from "../../api/types";
import { inside } from "../../core/roomShape";
import { useEditorPart } from "../../parts/editing";
import { useHands } from "../../parts/hands";
import type { GoboChange, Handled } from "./plan/GoboHandles";
import type { Pose } from "./plan/pose";

export function useMaterials() {
  return useQuery({
    queryKey: ["materials"],
    queryFn: () => exactly<Materials>(api.GET("/api/room/materials")),
    staleTime: Number.POSITIVE_INFINITY,
  });
}

export function useSetRoom() {
  const hands = useHands();
  return (room: RoomDoc | null) => void hands.commit(() => ({ do: "room", room }));
}

/** What the room does to sound; asked again whenever something that matters has changed. */
export function useRoomBoard(room: RoomDoc | null) {
  const still = useEditorPart((s) => s.still);
  return useQuery({
    queryKey: ["room-board", room, still.air, still.kit.rug, still.mics.map((m) => m.position_m)],
    queryFn: ({ signal }) =>
      exactly<RoomBoard>(api.POST("/api/room/board", { body: { layout: still }, signal })),
    enabled: room !== null,
    placeholderData: (old) => old,
    gcTime: 10_000,
  });
}

const posed = (pose: Pose) => ({
  do: "pose" as const,
  x_m: pose.x,
  y_m: pose.y,
  turn_rad: pose.turn,
});

const standing = ({ x, y, turn }: Pose) => ({ kit_x_m: x, kit_y_m: y, kit_turn_rad: turn });

/** The layout with its room changed, where it has one. */
const inRoom = (layout: Layout, change: (room: RoomDoc) => Partial<RoomDoc>): Layout =>
  layout.room ? { ...layout, room: { ...layout.room, ...change(layout.room) } } : layout;

/** The kit moved and turned in the room by pointer and keys. */
export function usePose() {
  const hands = useHands();
  return useMemo(
    () => ({
      onPose: (pose: Pose, done: boolean) => {
        if (done) void hands.commit(() => posed(pose));
        else hands.hold((_, kept) => inRoom(kept, () => standing(pose)));
      },
      onNudge: (by: Pose) =>
        void hands.commit(
          ({ room }: Layout) => {
            if (!room) return null;
            const [x, y] = inside(room, room.kit_x_m + by.x, room.kit_y_m + by.y);
            return posed({ x, y, turn: (room.kit_turn_rad ?? 0) + by.turn });
          },
          { soon: true },
        ),
    }),
    [hands],
  );
}

/** A gobo moved or turned, by its place in the list. */
export function useGobo() {
  const hands = useHands();
  return useCallback(
    (index: number, change: GoboChange, how: Handled) => {
      const moved = (kept: Layout) =>
        inRoom(kept, (room) => ({
          gobos: room.gobos.map((g, i) => (i === index ? { ...g, ...change(g) } : g)),
        }));
      const edit = (kept: Layout) => {
        const { room } = moved(kept);
        return room ? { do: "room" as const, room } : null;
      };
      if (how === "held") hands.hold((_, kept) => moved(kept));
      else void hands.commit(edit, { soon: how === "nudged" });
    },
    [hands],
  );
}

/** A room and how to change some of its fields, as its parts of the panel take them. */
export interface RoomPart {
  room: RoomDoc;
  put: (change: Partial<RoomDoc>) => void;
}
