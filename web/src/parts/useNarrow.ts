/** Whether the screen is a phone's: narrower than the charts can be. */
import { useSyncExternalStore } from "react";

const NARROW = matchMedia("(max-width: 759px)");

function subscribe(listener: () => void): () => void {
  NARROW.addEventListener("change", listener);
  return () => NARROW.removeEventListener("change", listener);
}

export const useNarrow = () => useSyncExternalStore(subscribe, () => NARROW.matches);
