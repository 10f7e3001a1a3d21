/** Another kit in its place: a preset or one's own; and this one kept for next time. */
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { api, exactly, must } from "../../api/client";
import type { KeptKit, Kit, Preset } from "../../api/types";
import { useEditor, useEditorPart } from "../../parts/editing";
import { useTake } from "../../parts/hands";
import { Kept } from "../../parts/Kept";
import { useToast } from "../../parts/toast";

/** The presets and the kits a studio keeps, and what can be done with those. */
function useKits(studio: number) {
  const say = useToast();
  const queries = useQueryClient();
  const path = { params: { path: { pk: studio } } };
  const again = () => {
    void queries.invalidateQueries({ queryKey: ["kits", studio] });
    void queries.invalidateQueries({ queryKey: ["starts"] });
  };
  const presets = useQuery({
    queryKey: ["presets"],
    queryFn: () => exactly<Preset[]>(api.GET("/api/kits")),
    staleTime: Number.POSITIVE_INFINITY,
  });
  const own = useQuery({
    queryKey: ["kits", studio],
    queryFn: () => exactly<KeptKit[]>(api.GET("/api/studios/{pk}/kits", path)),
  });
  const keep = useMutation({
    mutationFn: (body: Kit) =>
      exactly<KeptKit>(api.POST("/api/studios/{pk}/kits", { ...path, body })),
    onSuccess: (kept) => {
      again();
      say(`${kept.name} is kept for next time`);
    },
    onError: (e) => say(e.message),
  });
  const drop = useMutation({
    mutationFn: ({ id }: KeptKit) =>
      must(
        api.DELETE("/api/studios/{pk}/kits/{kit}", { params: { path: { pk: studio, kit: id } } }),
      ),
    onSuccess: (_, kept) => {
      again();
      const { kit } = kept;
      const undo = kit && { label: "Undo", run: () => keep.mutate(kit) };
      say(`${kept.name} is no longer kept`, undo ?? undefined);
    },
    onError: (e) => say(e.message),
  });
  return { say, presets: presets.data ?? [], own: own.data ?? [], keep, drop };
}

export function TakeKit() {
  const editor = useEditor();
  const studio = useEditorPart((s) => s.out.studio_id);
  const name = useEditorPart((s) => s.still.kit.name);
  const take = useTake();
  const { say, presets, own, keep, drop } = useKits(studio);
  const mine = own.find((k) => k.name === name);
  const every = [...own, ...presets];
  return (
    <Kept
      label="Take another kit; mics go with their drums"
      names={every.map((k) => k.name)}
      onTake={(at) => {
        const chosen = every[at];
        if (chosen?.kit) void take({ do: "swap", kit: chosen.kit });
        else if (chosen && "why_not" in chosen) say(chosen.why_not);
      }}
      keep={{
        words: `Keep ${name} for next time`,
        onKeep: () => keep.mutate(editor.snapshot().still.kit),
        busy: keep.isPending,
      }}
      forget={mine && { words: `Forget the kept ${mine.name}`, onForget: () => drop.mutate(mine) }}
    />
  );
}
