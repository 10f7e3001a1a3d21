/** The kit under the hand: every edit goes through the core, and mics go along. */
import { createContext, type ReactNode, useContext, useMemo } from "react";
import { api, exactly } from "../../api/client";
import type { Cymbal, Drum, KitEdited, Layout } from "../../api/types";
import { KitHands } from "../../core/kitHands";
import type { Point3 } from "../../core/view";
import { useEditor } from "../../parts/editing";
import { useToast } from "../../parts/toast";

export type Part = Drum | Cymbal;

export const isDrum = (part: Part): part is Drum => "batter_m" in part;

export function partsOf(layout: Layout): Part[] {
  return [...layout.kit.drums, ...(layout.kit.cymbals ?? [])];
}

export function partOf(layout: Layout, id: string | null): Part | undefined {
  return partsOf(layout).find((p) => p.id === id);
}

export function centreOf(part: Part): Point3 {
  return isDrum(part) ? part.batter_m : part.centre_m;
}

/** The part with its centre elsewhere. */
export function at(part: Part, to: Point3): Part {
  const round = (v: number) => Math.round(v * 1e4) / 1e4 + 0;
  const p: [number, number, number] = [round(to[0]), round(to[1]), round(Math.max(0, to[2]))];
  return isDrum(part) ? { ...part, batter_m: p } : { ...part, centre_m: p };
}

const HandsContext = createContext<KitHands | null>(null);

export function useKitHands(): KitHands {
  const hands = useContext(HandsContext);
  if (!hands) throw new Error("useKitHands is for the kit and room steps");
  return hands;
}

export function HandsProvider({ children }: { children: ReactNode }) {
  const editor = useEditor();
  const say = useToast();
  const hands = useMemo(
    () =>
      new KitHands({
        still: () => editor.snapshot().still,
        ask: (layout, edit) =>
          exactly<KitEdited>(api.POST("/api/edit", { body: { layout, edit } })),
        preview: (layout) => editor.preview(layout),
        commit: (layout, what) => editor.commit(layout, what),
        trouble: (error) => say(error.message),
      }),
    [editor, say],
  );
  return <HandsContext value={hands}>{children}</HandsContext>;
}

/** Change one part by name; nothing happens when it is gone. */
export function useChangePart() {
  const hands = useKitHands();
  return useMemo(() => {
    const make = (id: string, change: (part: Part) => Part) => (doc: Layout) => {
      const part = partOf(doc, id);
      return part ? { do: "change" as const, was: id, part: change(part) } : null;
    };
    return {
      show: (id: string, change: (part: Part) => Part) => hands.preview(make(id, change)),
      take: (id: string, change: (part: Part) => Part) => hands.commit(make(id, change)),
    };
  }, [hands]);
}
