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

/** After so long the next is asked though the last was not answered. */
const PATIENCE_MS = 5000;
const delay = (ms: number) => new Promise((done) => window.setTimeout(done, ms));

let asked: Promise<unknown> = Promise.resolve();

/**
 * One question after another: what is overtaken while it waits is not asked at all. What is asked
 * already is let finish, which takes less than to end it and begin another.
 */
function inTurn(signal: AbortSignal, body: { layout: Layout; of: number }): Promise<Worklist> {
  const mine = asked.then(() => {
    signal.throwIfAborted();
    return exactly<Worklist>(api.POST("/api/worklist", { body }));
  });
  const over = mine.catch(() => undefined);
  asked = asked.then(() => Promise.race([over, delay(PATIENCE_MS)]));
  return mine;
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
    queryFn: ({ signal }) => inTurn(signal, { layout: still, of }),
    enabled: layout !== null,
  });
}

export const useWorklist = () => useAsked(SOON_MS);

/** How long the list is; undefined while that is not known, or no longer. */
export function useListLength(): number | undefined {
  const { data, isPlaceholderData } = useAsked(REST_MS);
  return isPlaceholderData ? undefined : data?.lines.length;
}
