/** The boxes of the locker on the floor: put down, moved by hand and keys, forgotten. */
import { useMemo } from "react";
import type { Layout } from "../../../api/types";
import { useEditorPart } from "../../../parts/editing";
import { useHands } from "../../../parts/hands";

type Spot = [number, number];

function boxAt(layout: Layout, bank: string, position_m: Spot): Layout {
  const others = (layout.boxes ?? []).filter((b) => b.bank !== bank);
  return { ...layout, boxes: [...others, { bank, position_m }] };
}

/** Put a box somewhere, in the kit's frame; no place forgets it. */
export function usePutBox(): (bank: string, at: Spot | null, done?: boolean) => void {
  const hands = useHands();
  return useMemo(
    () =>
      (bank, at, done = true) => {
        if (done) void hands.commit(() => ({ do: "box", bank, position_m: at }));
        else if (at) hands.hold((_, kept) => boxAt(kept, bank, at));
      },
    [hands],
  );
}

/** Where a box stands, under the hand as well. */
export function useBoxSpots(): Map<string, Spot> {
  const boxes = useEditorPart((s) => s.doc.boxes);
  return useMemo(() => new Map((boxes ?? []).map((b) => [b.bank, b.position_m])), [boxes]);
}
