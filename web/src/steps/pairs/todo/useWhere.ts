/** Where a line that is done elsewhere is done: at the tape, with hits, in the pair, in the balance. */
import { useNavigate } from "react-router";
import type { Line } from "../../../api/types";
import { useEditor } from "../../../parts/editing";

interface Where {
  words: string;
  go: () => void;
}

/** What else the step shows for it. */
export interface Leads {
  onBalance: () => void;
  /** A pair has been opened. */
  onOpened: () => void;
}

export function useWhere(line: Line, { onBalance, onOpened }: Leads): Where | null {
  const editor = useEditor();
  const navigate = useNavigate();
  const [a, b, source] = line.of;
  switch (line.kind) {
    case "hits":
      return { words: "To the hits", go: () => void navigate("../hits") };
    case "tape":
      return { words: "To the tape", go: () => void navigate("../tape") };
    case "choose":
      return { words: "Balance", go: onBalance };
    case "decide":
      if (!a || !b) return null;
      return {
        words: "Open it",
        go: () => {
          onOpened();
          editor.open({ anchor: a, mover: b, source: source ?? null });
        },
      };
    default:
      return null;
  }
}
