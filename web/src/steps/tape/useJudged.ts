/** A reading judged while it is typed. */
import { queryOptions, useQuery, useQueryClient } from "@tanstack/react-query";
import { api, exactly } from "../../api/client";
import type { AskRow, Judged, KitEntry } from "../../api/types";
import { useEditorPart } from "../../parts/editing";

/** So long is waited for a verdict when somebody keeps a reading before it has come. */
const PATIENCE_MS = 1500;

export function useJudged(ask: AskRow, metres: number | null, log: KitEntry[]) {
  const layout = useEditorPart((s) => s.still);
  const pk = useEditorPart((s) => s.out.id);
  const queries = useQueryClient();
  const asked = queryOptions({
    queryKey: ["judge", pk, layout, log, ask.mic, ask.to, metres],
    queryFn: ({ signal }) =>
      exactly<Judged>(
        api.POST("/api/layouts/{pk}/judge", {
          params: { path: { pk } },
          body: { layout, log, mic: ask.mic, to: ask.to, metres: metres ?? 0 },
          signal,
        }),
      ),
    retry: false,
    staleTime: Number.POSITIVE_INFINITY,
    gcTime: 5_000,
  });
  const found = useQuery({ ...asked, enabled: metres !== null });
  /** The verdict on what is typed, also where it is still on its way; none with the server away. */
  const settled = (): Promise<Judged | undefined> =>
    Promise.race([
      queries.fetchQuery(asked).catch(() => undefined),
      new Promise<undefined>((done) => setTimeout(done, PATIENCE_MS)),
    ]);
  return { found, settled };
}
