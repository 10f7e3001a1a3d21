/** One tape heard alone for a look: nothing of it is kept. */
import { useCallback, useEffect, useState } from "react";
import type { Row } from "../../../core/loudness";
import { useEditor, useEditorPart } from "../../../parts/editing";
import { useHands } from "../../../parts/hands";

export interface Alone {
  /** Of which tape, by its source. */
  of: string | null;
  hear: (row: Row) => void;
}

export function useAlone(): Alone {
  const editor = useEditor();
  const hands = useHands();
  const still = useEditorPart((s) => s.still);
  const [heard, setHeard] = useState<{ of: string; on: object } | null>(null);
  // Whatever is done meanwhile is done to all, and all is heard again.
  const of = heard && heard.on === still ? heard.of : null;
  const back = useCallback(() => {
    const { still: now, doc } = editor.snapshot();
    if (doc !== now) editor.preview(now);
  }, [editor]);
  const hear = useCallback(
    (row: Row) => {
      if (of === row.source) {
        setHeard(null);
        back();
        return;
      }
      const own = new Set(row.tracks.map((t) => t.id));
      const faders = (still.channels ?? []).map((c) => ({ channel: c.id, muted: !own.has(c.id) }));
      hands.preview(() => ({ do: "faders", faders, why: "" }));
      setHeard({ of: row.source, on: still });
    },
    [of, still, hands, back],
  );
  useEffect(() => back, [back]);
  return { of, hear };
}
