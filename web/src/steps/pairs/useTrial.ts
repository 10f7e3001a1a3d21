/** Something on trial: shown everywhere, saved nowhere; leaving the step puts all back. */
import { useCallback, useEffect, useState } from "react";
import type { Edit, Layout, Line, Remedy } from "../../api/types";
import { channelOf, remedied, withChannels, withMics } from "../../core/edits";
import { useEditor, useEditorPart } from "../../parts/editing";
import { useHands, useTake } from "../../parts/hands";

const nameOf = (words: string) => words.replace(/\.$/, "").slice(0, 120);

/** What is on trial, as the chart beside it tells it. */
export interface Tried {
  kind: string;
  words: string;
  /** The mics it is about, and whether they would stand elsewhere. */
  ids: string[];
  moved: boolean;
  hint: string;
  take: () => void;
}

export interface OnTrial {
  tried: Remedy | null;
  onTry: (r: Remedy | null) => void;
  onTake: (r: Remedy) => void;
}

interface Trial {
  remedy?: Remedy;
  line?: Line;
  on: object;
}

/** The lines of a list as one edit: one save, one undo. */
export const asOne = (lines: Line[], why: string): Edit => ({
  do: "several",
  edits: lines.flatMap((l) => l.edits),
  why,
});

/** What a remedy does, in a word or two beside the chart. */
function hintOf(still: Layout, r: Remedy): string {
  const switched = r.channels.find((c) => {
    const was = channelOf(still, c.mic);
    return was && was.preamp_flip !== c.preamp_flip;
  });
  if (switched) return `${switched.mic} ${switched.preamp_flip ? "flipped" : "no longer flipped"}`;
  return r.steps.length ? MOVED : STAYS;
}

const MOVED = "dashed: where it would be";
const STAYS = "no mic moves";

export function useTrial() {
  const editor = useEditor();
  const hands = useHands();
  const take = useTake();
  const still = useEditorPart((s) => s.still);
  const [trial, setTrial] = useState<Trial | null>(null);
  const now = trial && trial.on === still ? trial : null;
  const back = useCallback(() => {
    setTrial(null);
    hands.callOff();
  }, [hands]);
  const onTry = useCallback(
    (r: Remedy | null) => {
      if (!r) {
        back();
        return;
      }
      const { still: kept } = editor.snapshot();
      setTrial({ remedy: r, on: kept });
      editor.preview(withChannels(withMics(kept, r.mics), r.channels));
    },
    [editor, back],
  );
  const onTake = useCallback(
    (r: Remedy) => {
      setTrial(null);
      const why = nameOf(r.words);
      if (r.mics.length) void take({ do: "mics", mics: r.mics, why });
      else void take({ do: "channels", channels: r.channels, why });
    },
    [take],
  );
  const onTryLine = useCallback(
    (line: Line) => {
      setTrial({ line, on: editor.snapshot().still });
      void hands.preview(() => asOne([line], line.words));
    },
    [editor, hands],
  );
  const onTakeLines = useCallback(
    (lines: Line[]) => {
      setTrial(null);
      const only = lines.length === 1 ? lines[0] : undefined;
      void take(asOne(lines, only ? nameOf(only.words) : `Took ${lines.length} lines of the list`));
    },
    [take],
  );
  useEffect(
    () => () => {
      const { still: kept, doc } = editor.snapshot();
      if (doc !== kept) editor.preview(kept);
    },
    [editor],
  );
  const { remedy = null, line = null } = now ?? {};
  const shown: Tried | null = remedy
    ? {
        kind: remedy.kind,
        words: remedy.words,
        ids: remedied(remedy),
        moved: remedy.steps.length > 0,
        hint: hintOf(still, remedy),
        take: () => onTake(remedy),
      }
    : line && {
        kind: line.kind,
        words: line.words,
        ids: line.of,
        moved: line.moves.length > 0,
        hint: line.moves.length ? MOVED : STAYS,
        take: () => onTakeLines([line]),
      };
  return { tried: remedy, onTry, onTake, shown, back, onTryLine, onTakeLines };
}

export type Trying = ReturnType<typeof useTrial>;
