/** Where a line that is done elsewhere is done: at the tape, with hits, in the pair, in the balance. */
import { useNavigate } from "react-router";
import type { Line } from "../../../api/types";
import { useEditor } from "../../../parts/editing";

interface Where {
  words: string;
  go: () => void;
}

export function useWhere(line: Line, onBalance: () => void): Where | null {
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
        go: () => editor.open({ anchor: a, mover: b, source: source ?? null }),
      };
    default:
      return null;
  }
}
