/** Whether the studio's locker can put up the layout as it is on the screen. */
import { useQuery } from "@tanstack/react-query";
import { api, exactly } from "../api/client";
import type { LockerOut, Stock } from "../api/types";
import { useEditorPart } from "./editing";

/** `live` asks also for what a hand holds. */
export function useStock(live = false) {
  const still = useEditorPart((s) => (live ? s.doc : s.still));
  const id = useEditorPart((s) => s.out.id);
  const locker = useLocker();
  const { mics, channels, boxes, stereo_pairs, kit, room, brief, thresholds } = still;
  return useQuery({
    queryKey: [
      "stock",
      id,
      mics,
      channels,
      boxes,
      stereo_pairs,
      kit,
      room,
      brief?.hitter,
      thresholds?.under_full_db,
      locker.data?.version,
    ],
    queryFn: () =>
      exactly<Stock>(
        api.POST("/api/layouts/{pk}/stock", {
          params: { path: { pk: id } },
          body: { layout: still },
        }),
      ),
    placeholderData: (old) => old,
    gcTime: 10_000,
  });
}

export function useLocker() {
  const studio = useEditorPart((s) => s.out.studio_id);
  return useQuery({
    queryKey: ["locker", studio],
    queryFn: () =>
      exactly<LockerOut>(api.GET("/api/studios/{pk}/locker", { params: { path: { pk: studio } } })),
  });
}
