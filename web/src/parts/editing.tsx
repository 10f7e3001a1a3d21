/** The open layout for every step, with what is lit across all drawings. */
import { createContext, useCallback, useContext, useSyncExternalStore } from "react";
import type { Editor, EditorState } from "../core/editor";
import type { Side } from "../core/view";

export interface Lit {
  selected: string | null;
  hovered: string | null;
  select: (id: string | null, extend?: boolean) => void;
  hover: (id: string | null) => void;
  side: Side;
  setSide: (side: Side) => void;
}

export const EditorContext = createContext<Editor | null>(null);
export const LitContext = createContext<Lit | null>(null);

export function useEditor(): Editor {
  const editor = useContext(EditorContext);
  if (!editor) throw new Error("useEditor is for the steps of an open layout");
  return editor;
}

/** One value of the open layout: the part that asks is drawn anew only when it changes. */
export function useEditorPart<T>(pick: (state: EditorState) => T): T {
  const editor = useEditor();
  return useSyncExternalStore(editor.subscribe, () => pick(editor.snapshot()));
}

/** As often as words can be read while a hand moves a mic: what is big follows at every answer. */
const CALM_MS = 100;

/** `useEditorPart` for sentences and curves: while a hand moves a mic, ten times a second. */
export function useCalmPart<T>(pick: (state: EditorState) => T): T {
  const editor = useEditor();
  const subscribe = useCallback(
    (listener: () => void) => {
      let clock: ReturnType<typeof setTimeout> | undefined;
      const later = () => {
        clock = undefined;
        listener();
      };
      const leave = editor.subscribe(() => {
        if (editor.snapshot().underHand) clock ??= setTimeout(later, CALM_MS);
        else listener();
      });
      return () => {
        clearTimeout(clock);
        leave();
      };
    },
    [editor],
  );
  return useSyncExternalStore(subscribe, () => pick(editor.snapshot()));
}

export function useLit(): Lit {
  const lit = useContext(LitContext);
  if (!lit) throw new Error("useLit is for the steps of an open layout");
  return lit;
}
