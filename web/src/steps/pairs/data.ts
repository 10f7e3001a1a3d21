/** What the Pairs step asks the server about the layout as it stands. */
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { api, exactly, must } from "../../api/client";
import type {
  Flips,
  Focus,
  LastHeard,
  OptionRow,
  PairDepth,
  PairRow,
  PictureOut,
  StepRow,
} from "../../api/types";
import { serial } from "../../core/serial";
import { useEditor, useEditorPart } from "../../parts/editing";

const KEPT = {
  placeholderData: keepPreviousData,
  staleTime: Number.POSITIVE_INFINITY,
  gcTime: 60_000,
};

/** One pair in depth; what is shown for another pair is not kept on the screen. */
export function useDepth(focus: Pick<Focus, "a" | "b" | "source">) {
  const layout = useEditorPart((s) => s.still);
  const { a, b, source } = focus;
  return useQuery<PairDepth>({
    ...KEPT,
    placeholderData: (old?: PairDepth) =>
      old && old.a === a && old.b === b && old.source === source ? old : undefined,
    queryKey: ["pair-depth", serial(layout), a, b, source],
    queryFn: ({ signal }) =>
      exactly<PairDepth>(
        api.POST("/api/pair-in-depth", { body: { layout, a, b, source }, signal }),
      ),
  });
}

export function useFlips() {
  const layout = useEditorPart((s) => s.still);
  return useQuery({
    ...KEPT,
    queryKey: ["flips", serial(layout)],
    queryFn: ({ signal }) => must<Flips>(api.POST("/api/best-flips", { body: { layout }, signal })),
  });
}

export function useSteps(first: "overheads" | "kick" | null) {
  const layout = useEditorPart((s) => s.still);
  return useQuery({
    ...KEPT,
    queryKey: ["one-by-one", serial(layout), first],
    queryFn: ({ signal }) =>
      must<StepRow[]>(api.POST("/api/one-by-one", { body: { layout, first }, signal })),
  });
}

/** The options of a set against each other; only while somebody looks. */
export function useOptions(set: string, open: boolean) {
  const layout = useEditorPart((s) => s.still);
  return useQuery({
    ...KEPT,
    queryKey: ["options", serial(layout), set],
    queryFn: ({ signal }) =>
      exactly<OptionRow[]>(api.POST("/api/options", { body: { layout, set }, signal })),
    enabled: open,
  });
}

export function usePicture() {
  const layout = useEditorPart((s) => s.still);
  return useQuery({
    ...KEPT,
    queryKey: ["picture", serial(layout)],
    queryFn: ({ signal }) =>
      must<PictureOut>(api.POST("/api/picture", { body: { layout }, signal })),
  });
}

export function usePairRows(source: string | null) {
  const layout = useEditorPart((s) => s.still);
  return useQuery({
    ...KEPT,
    queryKey: ["pair-rows", serial(layout), source],
    queryFn: ({ signal }) =>
      must<PairRow[]>(api.POST("/api/pair-rows", { body: { layout, source }, signal })),
  });
}

/**
 * What the newest take that was measured says of the pairs; asked for when the step is opened. What is
 * on the first picture does not ask (`asks`): it has what is asked right after it.
 */
export function useLastHeard(asks = true) {
  const editor = useEditor();
  const pk = useEditorPart((s) => s.out.id);
  const version = useEditorPart((s) => s.out.version);
  const { data } = useQuery({
    queryKey: ["heard", pk],
    queryFn: async () => {
      const { out } = editor.snapshot();
      const heard = await exactly<LastHeard | null>(
        api.GET("/api/layouts/{pk}/heard", { params: { path: { pk } } }),
      );
      return heard && { heard, version: out.version };
    },
    refetchOnMount: "always",
    enabled: asks,
  });
  const { heard } = data ?? {};
  return heard && { ...heard, current: heard.current && data?.version === version };
}
