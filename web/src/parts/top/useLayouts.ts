/** The layouts of a session, and copying, deleting and bringing back the one that is open. */
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { api, must } from "../../api/client";
import type { LayoutOut } from "../../api/types";
import { useEditorPart } from "../editing";
import { useGo } from "../go";
import { useToast } from "../toast";

export function useLayouts(out: LayoutOut) {
  const goTo = useGo();
  const say = useToast();
  const queries = useQueryClient();
  const name = useEditorPart((s) => s.still.name);
  const path = { params: { path: { pk: out.session_id } } };
  const session = useQuery({
    queryKey: ["session", out.session_id],
    queryFn: () => must(api.GET("/api/sessions/{pk}", path)),
  });
  const layouts = session.data?.layouts ?? [];
  const go = (id: number) => goTo(`/layouts/${id}/place`);
  /** A layout of the session has come or gone: look again, and open this one. */
  const opened = (id: number) => {
    void queries.invalidateQueries({ queryKey: ["session", out.session_id] });
    go(id);
  };
  const call = { params: { path: { pk: out.id } } };
  const onError = (e: Error) => say(e.message);
  const copy = useMutation({
    mutationFn: (to: string) =>
      must(api.POST("/api/layouts/{pk}/copy", { ...call, body: { name: to } })),
    onSuccess: (made) => opened(made.id),
    onError,
  });
  const restore = useMutation({
    mutationFn: () => must(api.POST("/api/layouts/{pk}/restore", call)),
    onSuccess: () => opened(out.id),
    onError,
  });
  const remove = useMutation({
    mutationFn: () => must(api.DELETE("/api/layouts/{pk}", call)),
    onSuccess: () => {
      say(`${name} is deleted`, { label: "Undo", run: () => restore.mutate() });
      const other = layouts.find((l) => l.id !== out.id);
      if (other) opened(other.id);
      else goTo("/");
    },
    onError,
  });
  return { layouts, go, opened, copy, remove };
}
