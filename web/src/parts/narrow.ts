/** Whether the screen has room for one thing beside none: a phone's, or a desk's seen enlarged. */
import { useSyncExternalStore } from "react";

/** The same as the styles' own `narrow`. */
const NARROW = matchMedia("(width < 900px)");

function subscribe(listener: () => void): () => void {
  NARROW.addEventListener("change", listener);
  return () => NARROW.removeEventListener("change", listener);
}

export const useNarrow = () => useSyncExternalStore(subscribe, () => NARROW.matches);

/**
 * A step there: what is drawn over what is said of it, which is scrolled by itself. What is scrolled
 * holds what is for a reader of the screen alone, which would make the page itself longer.
 */
export const OVER =
  "relative grid h-full grid-cols-[minmax(0,1fr)] grid-rows-[minmax(17rem,52%)_minmax(0,1fr)] low:grid-rows-[17rem_max-content] low:overflow-y-auto";
export const UNDER =
  "relative min-h-0 min-w-0 overflow-y-auto border-t border-hair bg-panel low:overflow-visible";
/** Its tabs stay where they are. */
export const UNDER_BAR = "sticky top-0 z-10 bg-panel px-3 py-2";
