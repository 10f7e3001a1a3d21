/** Readings at the kit: taken into the layout, and written down for the whole session. */
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { api, exactly } from "../../../api/client";
import type { TapeRow } from "../../../api/types";
import { useEditorPart } from "../../../parts/editing";
import { useTake } from "../../../parts/hands";
import { useLog } from "../../../parts/log";

/** Take a reading; whether the core took it. */
export function useReadTape() {
  const take = useTake();
  const write = useLog();
  const again = useAgain();
  return async (a: string, b: string | null, metres: number): Promise<boolean> => {
    const taken = await take({ do: "reading", a, b, metres });
    if (taken) void write("tape", { a, b, metres }).then(again, () => undefined);
    return taken !== null;
  };
}

/** Forget a reading: it is taken out of the layout and struck out in the log. */
export function useForgetTape() {
  const take = useTake();
  const write = useLog();
  const again = useAgain();
  return (a: string, b: string | null) => {
    void take({ do: "forget", a, b });
    void write("strike", { a, b }).then(again, () => undefined);
  };
}

function useAgain() {
  const queries = useQueryClient();
  return () => void queries.invalidateQueries({ queryKey: ["tape elsewhere"] });
}

/** What was read at this kit on other layouts of the session, and taking it in. */
export function useElsewhere() {
  const kit = useEditorPart((s) => s.still.kit);
  const session = useEditorPart((s) => s.out.session_id);
  const take = useTake();
  const found = useQuery({
    queryKey: ["tape elsewhere", session, kit],
    queryFn: () =>
      exactly<TapeRow[]>(
        api.POST("/api/sessions/{pk}/tape/elsewhere", {
          params: { path: { pk: session } },
          body: kit,
        }),
      ),
    placeholderData: (old) => old,
    gcTime: 10_000,
  });
  const rows = found.data ?? [];
  const takeIn = useMutation({
    mutationFn: () =>
      take({
        do: "readings",
        readings: rows.map(({ a, b, metres }) => ({ a, b, metres })),
      }),
  });
  return { rows, takeIn };
}
