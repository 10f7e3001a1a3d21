/** The drum or cymbal whose panel is open: read where it shows, so that no chart is drawn for it. */
import { createContext, useContext } from "react";

export const Chosen = createContext<string | null>(null);

export const useChosen = (): string | null => useContext(Chosen);
