/** Where everything stands by what was written down at the kit, and what to do next. */
import { useQuery } from "@tanstack/react-query";
import { useMemo } from "react";
import { api, exactly } from "../../api/client";
import type { AtKit, KitEntry, Layout } from "../../api/types";
import { nextAsk, sameLines } from "../../core/kitlog";
import { useEditorPart } from "../editing";
import { useLast } from "../last";

export type Order = AtKit["setup"]["order"];

export interface Stands {
  answer: AtKit | undefined;
  /** What was written since the answer. */
  fresh: KitEntry[];
  /** The reading to take next, by its place in the list. */
  next: number | null;
  /** The plan it is an answer for. */
  of: Layout | undefined;
  /** Whether the answer is for the layout and the lines of the log as they are now. */
  current: boolean;
  error: Error | null;
}

/** Where everything stands by the log, and what to do next. */
export function useStands(log: KitEntry[], order: Order, wanted = true): Stands {
  const layout = useEditorPart((s) => s.still);
  const pk = useEditorPart((s) => s.out.id);
  const found = useQuery({
    queryKey: ["standing", pk, layout, log, order],
    queryFn: async ({ signal }) => ({
      log,
      of: layout,
      answer: await exactly<AtKit>(
        api.POST("/api/layouts/{pk}/standing", {
          params: { path: { pk } },
          body: { layout, log, order },
          signal,
        }),
      ),
    }),
    enabled: wanted,
    placeholderData: (old) => old,
    gcTime: 10_000,
  });
  const data = useLast(found.data);
  const fresh = useMemo(() => {
    const known = new Set(data?.log.map((e) => e.key));
    return log.filter((e) => !known.has(e.key));
  }, [data, log]);
  // Asked again when own lines come back with their times, it stands all the same meanwhile.
  const answered = found.data !== undefined && !found.isPlaceholderData;
  const same = data?.of === layout && sameLines(data.log, log);
  return {
    answer: data?.answer,
    fresh,
    of: data?.of,
    next: data ? nextAsk(data.answer.standing.asks, fresh) : null,
    current: fresh.length === 0 && (answered || same),
    error: found.error,
  };
}
