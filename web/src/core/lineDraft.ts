/** A line of the log that is being written: kept over a change of step and a closed tab. */
import type { Tried } from "../api/types";

export type Draft = Pick<Tried, "song" | "words" | "verdict">;

const KEPT = "ringside-line-";
const HEARD = new Set<unknown>(["works", "maybe", "no"]);

/** What was begun for a layout; nothing where nothing was, or it is no draft. */
export function readDraft(store: Pick<Storage, "getItem">, layout: number): Draft | null {
  try {
    const kept = JSON.parse(store.getItem(KEPT + layout) ?? "null");
    const whole =
      typeof kept?.song === "string" && typeof kept.words === "string" && HEARD.has(kept.verdict);
    return whole ? { song: kept.song, words: kept.words, verdict: kept.verdict } : null;
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
