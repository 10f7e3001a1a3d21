/** What a take says: measured when it is whole, and anew when it or the layout has changed. */
import { useIsMutating, useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { api, exactly, must } from "../../api/client";
import type { DrumWaves, Job, Take, TakeTold } from "../../api/types";
import { useEditorPart } from "../../parts/editing";
import { useJob } from "../../parts/useJob";
import { LISTED } from "../../parts/worklist";
import { SAYING } from "./useTakes";

export function useMeasured(take: Take) {
  const version = useEditorPart((s) => s.out.version);
  const queries = useQueryClient();
  const [done, setDone] = useState<number | null>(null);
  const at = { params: { path: { pk: take.id } } };
  const { job, bad, start, stop } = useJob(
    (pk) => must<Job>(api.GET("/api/measures/{pk}", { params: { path: { pk } } })),
    (pk) => must<Job>(api.DELETE("/api/measures/{pk}", { params: { path: { pk } } })),
    (now) => {
      setDone(now.id);
      void queries.invalidateQueries({ queryKey: LISTED });
    },
  );
  const key = JSON.stringify([take.id, version, take.channels, take.drums]);
  const saying = useIsMutating({ mutationKey: SAYING }) > 0;
  // biome-ignore lint/correctness/useExhaustiveDependencies: the key says what it is measured for
  useEffect(() => {
    if (!saying) return start(must<Job>(api.POST("/api/takes/{pk}/measure", at)));
  }, [key, saying]);
  const told = useQuery({
    queryKey: ["take told", take.id, done],
    queryFn: () =>
      exactly<TakeTold>(
        api.GET("/api/takes/{pk}/measures/{job}/told", {
          params: { path: { pk: take.id, job: done ?? 0 } },
        }),
      ),
    enabled: done !== null,
    placeholderData: (old) => old,
    staleTime: Number.POSITIVE_INFINITY,
  });
  return { job, bad, stop, done, told: told.data, fault: told.error };
}

export function useWaves(take: number, job: number | null, source: string) {
  return useQuery({
    queryKey: ["take waves", take, job, source],
    queryFn: () =>
      exactly<DrumWaves>(
        api.GET("/api/takes/{pk}/measures/{job}/waves/{source}", {
          params: { path: { pk: take, job: job ?? 0, source } },
        }),
      ),
    enabled: job !== null,
    placeholderData: (old) => old,
    staleTime: Number.POSITIVE_INFINITY,
  });
}
