/** A remedy on trial: shown everywhere, saved nowhere; leaving the step puts all back. */
import { useCallback, useEffect, useState } from "react";
import type { Remedy } from "../../api/types";
import { withChannels, withMics } from "../../core/edits";
import { useEditor, useEditorPart } from "../../parts/editing";
import { useTake } from "../../parts/hands";

const nameOf = (r: Remedy) => r.words.replace(/\.$/, "").slice(0, 120);

export interface OnTrial {
  tried: Remedy | null;
  onTry: (r: Remedy | null) => void;
  onTake: (r: Remedy) => void;
}

export function useTrial(): OnTrial {
  const editor = useEditor();
  const take = useTake();
  const still = useEditorPart((s) => s.still);
  const [trial, setTrial] = useState<{ remedy: Remedy; on: object } | null>(null);
  const tried = trial && trial.on === still ? trial.remedy : null;
  const onTry = useCallback(
    (r: Remedy | null) => {
      const { still: now, doc } = editor.snapshot();
      setTrial(r && { remedy: r, on: now });
      if (r) editor.preview(withChannels(withMics(now, r.mics), r.channels));
      else if (doc !== now) editor.preview(now);
    },
    [editor],
  );
  const onTake = useCallback(
    (r: Remedy) => {
      setTrial(null);
      const why = nameOf(r);
      if (r.mics.length) void take({ do: "mics", mics: r.mics, why });
      else void take({ do: "channels", channels: r.channels, why });
    },
    [take],
  );
  useEffect(
    () => () => {
      const { still: now, doc } = editor.snapshot();
      if (doc !== now) editor.preview(now);
    },
    [editor],
  );
  return { tried, onTry, onTake };
}
