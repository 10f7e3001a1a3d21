/** Numbers of a technique in use under the hand: shown while they slide, kept where let go of. */
import { useEffect, useMemo, useState } from "react";
import { api, exactly } from "../../../api/client";
import type { Layout, Standing, Took } from "../../../api/types";
import type { Editor } from "../../../core/editor";
import { Latest } from "../../../core/latest";
import { useEditor } from "../../../parts/editing";
import { useToast } from "../../../parts/toast";

type Numbers = Record<string, number>;

interface Ask {
  layout: Layout;
  taken: string;
  numbers: Numbers;
  done: boolean;
}

function latest(editor: Editor, kept: (numbers: Numbers) => void, failed: (e: Error) => void) {
  return new Latest<Ask, Took>(
    ({ layout, taken, numbers }) =>
      exactly<Took>(api.POST("/api/techniques/change", { body: { layout, taken, numbers } })),
    (answer, { numbers, done }) => {
      if (!done) return editor.preview(answer.layout);
      editor.commitSoon(answer.layout, answer.what);
      kept(numbers);
    },
    (error) => {
      editor.preview(editor.snapshot().still);
      failed(error);
    },
  );
}

/** Say that not everything is saved while a number that was let go of is unanswered. */
function useUnanswered(editor: Editor, wanted: Numbers) {
  const [letGo, setLetGo] = useState(false);
  const busy = letGo && Object.keys(wanted).length > 0;
  useEffect(() => {
    if (!busy) return setLetGo(false);
    editor.hold();
    return () => editor.release();
  }, [busy, editor]);
  return () => setLetGo(true);
}

export function useNumbers(row: Standing) {
  const editor = useEditor();
  const say = useToast();
  // What the hand asked for and the server has not answered yet: a slider must not fall back.
  const [wanted, setWanted] = useState<Numbers>({});
  const hands = useMemo(
    () =>
      latest(
        editor,
        (numbers) =>
          setWanted((old) =>
            Object.fromEntries(Object.entries(old).filter(([id, v]) => numbers[id] !== v)),
          ),
        (error) => {
          setWanted({});
          say(error.message);
        },
      ),
    [editor, say],
  );
  useEffect(
    () => () => {
      hands.callOff();
      const { doc: now, still } = editor.snapshot();
      if (now !== still) editor.preview(still);
    },
    [editor, hands],
  );
  const letGo = useUnanswered(editor, wanted);
  const change = (numbers: Numbers, done: boolean) => {
    if (done) letGo();
    setWanted((old) => ({ ...old, ...numbers }));
    hands.want({ layout: editor.snapshot().still, taken: row.id, numbers, done });
  };
  return { wanted, change };
}
