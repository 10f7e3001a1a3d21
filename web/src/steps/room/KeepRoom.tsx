/** The studio's rooms: take one, keep this one. */
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { api, exactly, must } from "../../api/client";
import type { KeptRoom, Room } from "../../api/types";
import { useEditorPart } from "../../parts/editing";
import { Kept } from "../../parts/Kept";
import { useToast } from "../../parts/toast";
import { useSetRoom } from "./useRoom";

function useKeptRooms() {
  const studio = useEditorPart((s) => s.out.studio_id);
  const say = useToast();
  const queries = useQueryClient();
  const path = { params: { path: { pk: studio } } };
  const again = () => {
    void queries.invalidateQueries({ queryKey: ["rooms", studio] });
    void queries.invalidateQueries({ queryKey: ["starts"] });
  };
  const rooms = useQuery({
    queryKey: ["rooms", studio],
    queryFn: () => exactly<KeptRoom[]>(api.GET("/api/studios/{pk}/rooms", path)),
  });
  const keep = useMutation({
    mutationFn: (body: Room) =>
      exactly<KeptRoom>(api.POST("/api/studios/{pk}/rooms", { ...path, body })),
    onSuccess: (kept) => {
      again();
      say(`${kept.name} is kept for next time`);
    },
    onError: (e) => say(e.message),
  });
  const drop = useMutation({
    mutationFn: (kept: KeptRoom) =>
      must(
        api.DELETE("/api/studios/{pk}/rooms/{room}", {
          params: { path: { pk: studio, room: kept.id } },
        }),
      ),
    onSuccess: (_, kept) => {
      again();
      const { room } = kept;
      const undo = room && { label: "Undo", run: () => keep.mutate(room) };
      say(`${kept.name} is no longer kept`, undo ?? undefined);
    },
    onError: (e) => say(e.message),
  });
  return { say, rooms: rooms.data ?? [], keep, drop };
}

export function KeepRoom({ room }: { room: Room | null }) {
  const set = useSetRoom();
  const { say, rooms, keep, drop } = useKeptRooms();
  const mine = rooms.find((r) => r.name === room?.name);
  return (
    <div className="border-t border-hair pt-3">
      <Kept
        label="Take a room of the studio"
        names={rooms.map((r) => r.name)}
        onTake={(at) => {
          const chosen = rooms[at];
          if (chosen?.room) set(chosen.room);
          else if (chosen) say(chosen.why_not);
        }}
        keep={room ? { words: "Keep for next time", onKeep: () => keep.mutate(room) } : undefined}
        forget={mine && { words: "Forget", onForget: () => drop.mutate(mine) }}
      />
    </div>
  );
}
