/** What the server knows of techniques: the list for this kit, and how those in use stand. */
import { useQuery } from "@tanstack/react-query";
import { api, exactly } from "../../../api/client";
import type { Standing, Technique } from "../../../api/types";
import { useEditorPart } from "../../../parts/editing";
import { useMe } from "../../../parts/me";

export function useTechniques() {
  const still = useEditorPart((s) => s.still);
  const { hand } = useMe();
  return useQuery({
    queryKey: ["techniques", still.kit, still.room, hand],
    queryFn: () => exactly<Technique[]>(api.POST("/api/techniques", { body: { layout: still } })),
    placeholderData: (old) => old,
    gcTime: 10_000,
  });
}

/** `ask` is false where it can wait: under a hand, what is read can. */
export function useStanding(ask = true) {
  const still = useEditorPart((s) => s.still);
  const told = still.mics.map((m) => [m.id, m.position_m]);
  return useQuery({
    enabled: ask,
    queryKey: ["standing", told, still.techniques, still.kit, still.room],
    queryFn: () =>
      exactly<Standing[]>(api.POST("/api/techniques/standing", { body: { layout: still } })),
    placeholderData: (old) => old,
    gcTime: 10_000,
  });
}
