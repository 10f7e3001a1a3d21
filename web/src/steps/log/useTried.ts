/** The lines of the log, and all that is done with one. */
import { useInfiniteQuery, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, exactly, must } from "../../api/client";
import type { Change, Layout, LineDoc, SinceLast, Tried } from "../../api/types";
import { newKey } from "../../core/key";
import type { Draft } from "../../core/lineDraft";
import { when } from "../../core/moments";
import { plain } from "../../core/shown";
import { useAsShown } from "../../parts/atkit/State";
import { useEditor, useEditorPart } from "../../parts/editing";
import { useHands, useStep } from "../../parts/hands";
import { TRIED, useLog, useUnsent } from "../../parts/log";
import { useToast } from "../../parts/toast";

/** The lines of this session, newest first. */
export function useLines() {
  const session = useEditorPart((s) => s.out.session_id);
  return useQuery({
    queryKey: [TRIED, session],
    queryFn: () =>
      exactly<Tried[]>(api.GET("/api/sessions/{pk}/tried", { params: { path: { pk: session } } })),
  });
}

/** Lines fetched at a time. */
const A_PAGE = 40;

/** Lines of the studio's other sessions that hold these words, page by page. */
export function useElsewhere(words: string) {
  const session = useEditorPart((s) => s.out.session_id);
  return useInfiniteQuery({
    queryKey: [TRIED, session, "elsewhere", words],
    queryFn: ({ signal, pageParam }) =>
      exactly<Tried[]>(
        api.GET("/api/sessions/{pk}/tried/elsewhere", {
          signal,
          params: { path: { pk: session }, query: { words, before: pageParam, most: A_PAGE } },
        }),
      ),
    initialPageParam: undefined as number | undefined,
    getNextPageParam: (page) => (page.length < A_PAGE ? undefined : page.at(-1)?.id),
    placeholderData: (old) => old,
  });
}

/** What changed since the newest line of this layout. */
export function useSince() {
  const id = useEditorPart((s) => s.out.id);
  const layout = useEditorPart((s) => s.still);
  return useQuery({
    queryKey: [TRIED, "since", id, layout],
    queryFn: ({ signal }) =>
      exactly<SinceLast>(
        api.POST("/api/layouts/{pk}/tried/since", {
          signal,
          params: { path: { pk: id } },
          body: { layout },
        }),
      ),
    placeholderData: (old) => old,
    gcTime: 10_000,
  });
}

type From = { layout: Layout } | { other: number };

function wayTo(pk: number, body: From, signal?: AbortSignal): Promise<Change[]> {
  const params = { path: { pk } };
  return exactly(api.POST("/api/tried/{pk}/way-to", { signal, params, body }));
}

/** What is to be changed to come to a line from the layout as it is now, or from another line. */
export function useWayTo(line: number, other: number | null) {
  const layout = useEditorPart((s) => s.still);
  return useQuery({
    queryKey: [TRIED, "way to", line, other ?? layout],
    queryFn: ({ signal }) => wayTo(line, other === null ? { layout } : { other }, signal),
    gcTime: 10_000,
  });
}

/** Look again, at everything that is told of lines. */
function useAgain() {
  const queries = useQueryClient();
  return () => queries.invalidateQueries({ queryKey: [TRIED] });
}

/** Lines that are kept here until they can be sent. */
export const useUnsentLines = () => useUnsent().filter((e) => e.kind === "tried");

/** Write a line down, with the layout as it is; sent later where the server is away. */
export function useWriteLine() {
  const editor = useEditor();
  const log = useLog();
  const stood = useAsShown() !== null;
  return (draft: Draft) => {
    const { out, still } = editor.snapshot();
    const at = new Date().toISOString();
    const line = { ...draft, layout: out.id, stood, at, doc: plain(still) };
    return log("tried", line);
  };
}

/** Strike a line out, with a way back. */
export function useStrike() {
  const say = useToast();
  const again = useAgain();
  const onError = (e: Error) => say(e.message);
  const path = (pk: number) => ({ params: { path: { pk } } });
  const restore = useMutation({
    mutationFn: (line: number) => must(api.POST("/api/tried/{pk}/restore", path(line))),
    onSuccess: again,
    onError,
  });
  const strike = useMutation({
    mutationFn: (line: number) => must(api.POST("/api/tried/{pk}/strike", path(line))),
    onSuccess: (_, line) => {
      say("Struck out", { label: "Undo", run: () => restore.mutate(line) });
      return again();
    },
    onError,
  });
  return strike.mutate;
}

/** Say otherwise of what was heard; sent again it is said once, as it was said first. */
export function useSayOtherwise(line: number) {
  const say = useToast();
  const again = useAgain();
  const [key] = useState(newKey);
  return useMutation({
    mutationFn: (draft: Draft) => {
      const path = { pk: line };
      return must(
        api.POST("/api/tried/{pk}/otherwise", { params: { path }, body: { key, ...draft } }),
      );
    },
    onSuccess: again,
    onError: (e: Error) => say(e.message),
  });
}

/** Stands do not move by themselves: what is to be moved where it stands. */
function onTheFloor(way: Change[]): string {
  const moved = way.filter((c) => c.moved_m != null).map((c) => c.what);
  return moved.length ? `. To be moved on the floor: ${moved.join(", ")}` : "";
}

/** The open layout as it was in a line: one more state, with undo. */
export function useGoBack() {
  const editor = useEditor();
  const hands = useHands();
  const step = useStep();
  const say = useToast();
  return async (line: Tried) => {
    try {
      await hands.settled();
      const { still } = editor.snapshot();
      const call = { params: { path: { pk: line.id } } };
      const [{ doc }, way] = await Promise.all([
        exactly<LineDoc>(api.GET("/api/tried/{pk}", call)),
        wayTo(line.id, { layout: still }),
      ]);
      const { name, notes, thresholds } = editor.snapshot().still;
      const what = `Back as it was at ${when(line.at)}`;
      editor.commit({ ...doc, name, notes, thresholds }, what);
      say(what + onTheFloor(way), { label: "Undo", run: () => step("undo") });
    } catch (error) {
      say((error as Error).message);
    }
  };
}
