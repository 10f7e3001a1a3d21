/** A reading judged while it is typed. */
import {
  QueryObserver,
  queryOptions,
  type UseQueryResult,
  useQuery,
  useQueryClient,
} from "@tanstack/react-query";
import { api, exactly, fateOf } from "../../api/client";
import type { AskRow, Judged, KitEntry } from "../../api/types";
import { useEditorPart } from "../../parts/editing";

/** So long is waited for a verdict when somebody keeps a reading before it has come. */
const PATIENCE_MS = 1500;
/** A server that is away, or has too much in line, is asked again: soon, then less and less. */
const AGAIN_MS = 300;
const AGAIN_AT_MOST_MS = 5000;

/** The server is away, or said why it does not judge this. */
export type Unsaid = "away" | { refused: string };

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
    retry: (_, error) => fateOf(error) === "away",
    retryDelay: (count) => Math.min(AGAIN_MS * 2 ** count, AGAIN_AT_MOST_MS),
    staleTime: Number.POSITIVE_INFINITY,
    gcTime: 5_000,
  });
  const found = useQuery({ ...asked, enabled: metres !== null });
  /** The verdict on what is typed, also where it is still on its way; none with the server away. */
  const settled = async (): Promise<Judged | undefined> => {
    // The field is empty from here on and asks for nothing more: somebody has to go on waiting.
    const stop = new QueryObserver(queries, { ...asked, enabled: false }).subscribe(() => {});
    const verdict = await Promise.race([
      queries.fetchQuery(asked).catch(() => undefined),
      new Promise<undefined>((done) => setTimeout(done, PATIENCE_MS)),
    ]);
    stop();
    return verdict;
  };
  return { judged: found.data, unsaid: found.data ? null : unsaidFor(found), settled };
}

/** Why nothing was said; null while it is on its way. */
function unsaidFor({ fetchStatus, failureReason }: UseQueryResult): Unsaid | null {
  if (failureReason && fateOf(failureReason) !== "away") return { refused: failureReason.message };
  return failureReason || fetchStatus === "paused" ? "away" : null;
}
