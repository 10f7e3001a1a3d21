/** A reading judged while it is typed. */
import { useQuery } from "@tanstack/react-query";
import { api, exactly } from "../../api/client";
import type { AskRow, Judged, KitEntry } from "../../api/types";
import { useEditorPart } from "../../parts/editing";

export function useJudged(ask: AskRow, metres: number | null, log: KitEntry[]) {
  const layout = useEditorPart((s) => s.still);
  const pk = useEditorPart((s) => s.out.id);
  return useQuery({
    queryKey: ["judge", pk, layout, log, ask.mic, ask.to, metres],
    queryFn: ({ signal }) =>
      exactly<Judged>(
        api.POST("/api/layouts/{pk}/judge", {
          params: { path: { pk } },
          body: { layout, log, mic: ask.mic, to: ask.to, metres: metres ?? 0 },
          signal,
        }),
      ),
    enabled: metres !== null,
    retry: false,
    gcTime: 5_000,
  });
}
