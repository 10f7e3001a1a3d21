/** The questions, the answers kept, the layouts that follow from them, and taking one. */
import { useQuery } from "@tanstack/react-query";
import { useNavigate } from "react-router";
import { api, exactly } from "../../api/client";
import type { Brief as Answers, BriefOut, Layout, Piece, Plan } from "../../api/types";
import { useEditor, useEditorPart } from "../../parts/editing";
import { useHands, useStep } from "../../parts/hands";
import { useToast } from "../../parts/toast";

function useAsked() {
  return useQuery({
    queryKey: ["brief"],
    queryFn: () => exactly<BriefOut>(api.GET("/api/brief")),
    staleTime: Number.POSITIVE_INFINITY,
  });
}

function usePlans(brief: Answers | undefined) {
  const id = useEditorPart((s) => s.out.id);
  const still = useEditorPart((s) => s.still);
  return useQuery({
    queryKey: ["plans", id, brief, still.kit, still.room, still.air],
    queryFn: ({ signal }) =>
      exactly<Plan[]>(
        api.POST("/api/layouts/{pk}/plans", {
          signal,
          params: { path: { pk: id } },
          body: { layout: still, brief: brief as Answers },
        }),
      ),
    enabled: Boolean(brief),
    placeholderData: (old) => old,
    gcTime: 10_000,
  });
}

/** Put a starting layout up in the place of what is kept. */
function useBuild(brief: Answers | undefined) {
  const editor = useEditor();
  const hands = useHands();
  const step = useStep();
  const go = useNavigate();
  const say = useToast();
  const id = useEditorPart((s) => s.out.id);
  const put = (made: Layout, what: string) => {
    const { name, notes, thresholds } = editor.snapshot().still;
    editor.commit({ ...made, name, notes, thresholds }, what);
    go(`/layouts/${id}/place`);
    say(what, { label: "Undo", run: () => step("undo") });
  };
  return async (pieces: Piece[], what: string) => {
    if (!brief) return;
    await hands.settled();
    const params = { path: { pk: id } };
    const body = { layout: editor.snapshot().still, brief, pieces };
    try {
      const { layout } = await exactly<{ layout: Layout }>(
        api.POST("/api/layouts/{pk}/build", { params, body }),
      );
      put(layout, what);
    } catch (error) {
      say((error as Error).message);
    }
  };
}

export function useBrief() {
  const editor = useEditor();
  const kept = useEditorPart((s) => s.still.brief ?? null);
  const asked = useAsked();
  const brief: Answers | undefined = asked.data && { ...asked.data.start, ...kept };
  const plans = usePlans(brief);
  const build = useBuild(brief);
  const answer = (change: Partial<Answers>, what: string) => {
    if (!brief) return;
    editor.commitSoon({ ...editor.snapshot().still, brief: { ...brief, ...change } }, what);
  };
  return { asked, brief, plans, build, answer };
}
