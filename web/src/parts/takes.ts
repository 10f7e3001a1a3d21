/** The takes of a session that can be listened to, and the ways to them. */
import { useQuery } from "@tanstack/react-query";
import { useSearchParams } from "react-router";
import { api, must } from "../api/client";
import type { TakeNamed } from "../api/types";
import { useEditorPart } from "./editing";

/** Whole takes of all layouts of the session, newest first. */
export function useSessionTakes() {
  const session = useEditorPart((s) => s.out.session_id);
  return useQuery({
    queryKey: ["takes", "session", session],
    queryFn: () =>
      must<TakeNamed[]>(api.GET("/api/sessions/{pk}/takes", { params: { path: { pk: session } } })),
    refetchOnMount: "always",
  });
}

/** What a take is called beside a layout: of another one, that is said with it. */
export const takeName = (take: TakeNamed, layout: number): string =>
  take.layout_id === layout ? take.name : `${take.name} (${take.layout})`;

/** Where a take is listened to, or held against another. */
export function listenTo(take: TakeNamed, against?: TakeNamed): string {
  const other = against ? `&against=${against.id}` : "";
  return `/layouts/${take.layout_id}/hits?take=${take.id}${other}`;
}

/** What the way here asks for: a take, and the one it is held against. */
export function useAskedTakes(): { take: number | null; against: number | null } {
  const [asked] = useSearchParams();
  const number = (name: string) => Number.parseInt(asked.get(name) ?? "", 10) || null;
  return { take: number("take"), against: number("against") };
}
