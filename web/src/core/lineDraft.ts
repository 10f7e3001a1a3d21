/** A line of the log that is being written: kept over a change of step and a closed tab. */
import type { Tried } from "../api/types";
import { HEARD } from "./triedLines";

export type Draft = Pick<Tried, "song" | "words" | "verdict"> & {
  /** The take it was heard in: none, or, where nobody chose, the one that is likely. */
  take?: number | null;
};

const KEPT = "ringside-line-";
const WORDS = new Set<unknown>(HEARD.map(([word]) => word));

/** What was begun for a layout; nothing where nothing was, or it is no draft. */
export function readDraft(store: Pick<Storage, "getItem">, layout: number): Draft | null {
  try {
    const kept = JSON.parse(store.getItem(KEPT + layout) ?? "null");
    const whole =
      typeof kept?.song === "string" && typeof kept.words === "string" && WORDS.has(kept.verdict);
    if (!whole) return null;
    const { song, words, verdict, take } = kept;
    const chosen = take === null || Number.isInteger(take);
    return { song, words, verdict, ...(chosen && { take }) };
  } catch {
    return null;
  }
}

/** Keep it; null once it is written down. */
export function keepDraft(
  store: Pick<Storage, "setItem" | "removeItem">,
  layout: number,
  draft: Draft | null,
): void {
  try {
    if (draft) store.setItem(KEPT + layout, JSON.stringify(draft));
    else store.removeItem(KEPT + layout);
  } catch {
    // The store is full, or there is none: it is on the screen all the same.
  }
}

/** A line that was refused for good, back as what is begun: before words that were begun since. */
export function giveBack(
  store: Pick<Storage, "getItem" | "setItem" | "removeItem">,
  body: Record<string, unknown>,
): void {
  const layout = Number(body.layout);
  const since = readDraft(store, layout)?.words;
  const { song, words, verdict, take } = body as Draft;
  const both = [words, since].filter(Boolean).join("\n");
  keepDraft(store, layout, { song, verdict, take, words: both });
}
