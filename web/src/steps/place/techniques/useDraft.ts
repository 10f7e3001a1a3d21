/** A technique as it would stand, asked of the core while its numbers are chosen. */
import { useCallback, useEffect, useLayoutEffect, useMemo, useRef, useState } from "react";
import { api, exactly } from "../../../api/client";
import type { Layout, Technique, Took } from "../../../api/types";
import type { Editor } from "../../../core/editor";
import { Latest } from "../../../core/latest";
import { useEditor, useEditorPart } from "../../../parts/editing";

export interface Ask {
  layout: Layout;
  technique: string;
  target: string | null;
  numbers: Record<string, number>;
}

interface Answer {
  took: Took | null;
  /** The question it answers. */
  of: Ask | null;
  bad: string;
}

const NOTHING: Answer = { took: null, of: null, bad: "" };

function latest(editor: Editor, tell: (answer: Answer) => void) {
  return new Latest<Ask, Took>(
    (body) =>
      exactly<Took>(
        api.POST("/api/layouts/{pk}/take", {
          params: { path: { pk: editor.snapshot().out.id } },
          body,
        }),
      ),
    (took, of) => {
      tell({ took, of, bad: "" });
      editor.preview(took.layout);
    },
    (error) => {
      tell({ ...NOTHING, bad: error.message });
      editor.preview(editor.snapshot().still);
    },
  );
}

/** The answer to the newest question; what is only shown goes when the draft goes. */
function useAnswer(technique: Technique, target: string | null, numbers: Record<string, number>) {
  const editor = useEditor();
  const still = useEditorPart((s) => s.still);
  const [answer, setAnswer] = useState<Answer>(NOTHING);
  const asked = useRef<Ask | null>(null);
  const taken = useRef(false);
  const hands = useMemo(() => latest(editor, setAnswer), [editor]);
  useEffect(() => {
    asked.current = { layout: still, technique: technique.id, target, numbers };
    hands.want(asked.current);
  }, [hands, still, technique.id, target, numbers]);
  useEffect(
    () => () => {
      hands.callOff();
      if (!taken.current) editor.preview(editor.snapshot().still);
    },
    [editor, hands],
  );
  return { answer, asked, taken, hands };
}

/** What was let go of and waits for its answer is not saved yet, and the page says so. */
function useHeld(editor: Editor, waits: boolean) {
  useLayoutEffect(() => {
    if (!waits) return;
    editor.hold();
    return () => editor.release();
  }, [editor, waits]);
}

export function useDraft(technique: Technique, onTaken: (id: string) => void) {
  const editor = useEditor();
  const [target, setTarget] = useState<string | null>(null);
  const [numbers, setNumbers] = useState<Record<string, number>>({});
  // Pressed while a number was still on its way: taken as soon as that is answered.
  const [eager, setEager] = useState(false);
  const { answer, asked, taken, hands } = useAnswer(technique, target, numbers);
  const { took, of, bad } = answer;
  useHeld(editor, eager);
  const take = useCallback(() => {
    if (!took) return;
    if (of !== asked.current) return setEager(true);
    taken.current = true;
    hands.callOff();
    editor.commit(took.layout, took.what);
    onTaken(took.id);
  }, [of, asked, taken, editor, hands, onTaken, took]);
  useEffect(() => {
    if (bad) setEager(false);
    else if (eager) take();
  }, [bad, eager, take]);
  const choose = (v: string) => {
    setTarget(v);
    setNumbers({});
  };
  const slide = (id: string, value: number) => setNumbers((old) => ({ ...old, [id]: value }));
  return { took, bad, target, numbers, take, choose, slide };
}
