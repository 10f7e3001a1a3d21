/** The drum or cymbal whose panel is open: whatever shows that is drawn anew, and nothing round it. */
import { createContext, useContext, useSyncExternalStore } from "react";
import type { Shared } from "../../core/shared";
import { useShared } from "../../parts/editing";

type Choice = Shared<string | null>;

export const Chosen = createContext<Choice | null>(null);

function useChoice(): Choice {
  const choice = useContext(Chosen);
  if (!choice) throw new Error("useChosen and useIsChosen are for what is on Kit");
  return choice;
}

export const useChosen = (): string | null => useShared(useChoice());

export function useIsChosen(id: string): boolean {
  const { subscribe, get } = useChoice();
  return useSyncExternalStore(subscribe, () => get() === id);
}
