/** The takes of the open layout, and what can be done with one. */
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { api, must } from "../../api/client";
import type { Take, Takes } from "../../api/types";
import { useEditorPart } from "../../parts/editing";
import { LISTED } from "../../parts/worklist";

const at = (pk: number) => ({ params: { path: { pk } } });

export const whole = (take: Take) => take.files.every((f) => f.received === f.size);

/** What somebody says of a take is on its way: nothing is measured by it before it is kept. */
export const SAYING = ["take said"];

export function useTakes() {
  const layout = useEditorPart((s) => s.out.id);
  const queries = useQueryClient();
  const key = ["takes", layout];
  const found = useQuery({
    queryKey: key,
    queryFn: () => must<Takes>(api.GET("/api/layouts/{pk}/takes", at(layout))),
    refetchOnMount: "always",
  });
  const again = () => queries.invalidateQueries({ queryKey: key });
  const forget = useMutation({
    mutationFn: (pk: number) => must(api.DELETE("/api/takes/{pk}", at(pk))),
    onSettled: () => {
      void queries.invalidateQueries({ queryKey: LISTED });
      return again();
    },
  });
  const say = useMutation({
    mutationKey: SAYING,
    mutationFn: ({ id, channels, drums }: Pick<Take, "id" | "channels" | "drums">) =>
      must<Take>(api.PUT("/api/takes/{pk}/said", { ...at(id), body: { channels, drums } })),
    // Here at once: a choice that springs back while it is sent looks refused.
    onMutate: ({ id, channels, drums }) =>
      queries.setQueryData<Takes>(
        key,
        (old) =>
          old && {
            ...old,
            takes: old.takes.map((t) => (t.id === id ? { ...t, channels, drums } : t)),
          },
      ),
    onSettled: again,
  });
  return { layout, found, again, forget, say };
}

export type TakesHere = ReturnType<typeof useTakes>;
