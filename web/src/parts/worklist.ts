/** The list of what to do now, asked for when the layout rests; one answer for rail and step. */
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { api, exactly } from "../api/client";
import type { Layout, Worklist } from "../api/types";
import { serial } from "../core/serial";
import { useEditorPart } from "./editing";

/** What a take is measured to say is counted: when it is, the list is another. */
export const LISTED = ["worklist"];

/** So long nothing has changed before the rail asks. */
const REST_MS = 800;
/** On the step itself, sooner: several changes in a row are one question. */
const SOON_MS = 150;

/** The layout once it has rested; null while it is being worked on. */
function useRested(layout: Layout, wait: number): Layout | null {
  const [rested, setRested] = useState<Layout | null>(wait ? null : layout);
  useEffect(() => {
    if (!wait) return;
    const timer = window.setTimeout(() => setRested(layout), wait);
    return () => window.clearTimeout(timer);
  }, [layout, wait]);
  if (!wait) return layout;
  return rested === layout ? rested : null;
}

function useAsked(wait: number) {
  const still = useEditorPart((s) => s.still);
  const of = useEditorPart((s) => s.out.id);
  const layout = useRested(still, wait);
  return useQuery({
    placeholderData: keepPreviousData,
    staleTime: Number.POSITIVE_INFINITY,
    gcTime: 60_000,
    queryKey: [...LISTED, of, serial(still)],
    // It takes less than to end it and begin another: what is overtaken is let finish.
    queryFn: () => exactly<Worklist>(api.POST("/api/worklist", { body: { layout: still, of } })),
    enabled: layout !== null,
  });
}

export const useWorklist = () => useAsked(SOON_MS);

/** How long the list is; undefined while that is not known, or no longer. */
export function useListLength(): number | undefined {
  const { data, isPlaceholderData } = useAsked(REST_MS);
  return isPlaceholderData ? undefined : data?.lines.length;
}
