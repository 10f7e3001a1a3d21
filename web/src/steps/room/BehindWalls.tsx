/** Mics that the room leaves no place for: told where it is drawn and where the kit is moved in it. */
import { useMemo } from "react";
import { useEditorPart } from "../../parts/editing";

/** Of those that are drawn here, by what is wrong with their spot. */
function useBlocked(): [words: string, ids: string[]][] {
  const mics = useEditorPart((s) => s.still.mics);
  const blocked = useEditorPart((s) => s.board?.blocked);
  return useMemo(() => {
    const found = new Map<string, string[]>();
    for (const { id, role } of mics) {
      const words = role === "close" ? "" : blocked?.[id];
      if (words) found.set(words, [...(found.get(words) ?? []), id]);
    }
    return [...found];
  }, [mics, blocked]);
}

export function BehindWalls() {
  return useBlocked().map(([words, ids]) => (
    <p
      key={words}
      role="alert"
      className="rounded-md border border-hollow p-2 text-[0.88rem] text-hollow"
    >
      <b className="num">{ids.join(", ")}</b>: {words}
    </p>
  ));
}
