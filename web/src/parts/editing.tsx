/** The open layout for every step, with what is lit across all drawings. */
import {
  type Context,
  createContext,
  useCallback,
  useContext,
  useEffect,
  useRef,
  useState,
  useSyncExternalStore,
} from "react";
import type { Editor, EditorState } from "../core/editor";
import type { Shared } from "../core/shared";
import type { Side } from "../core/view";

export interface Lit {
  select: (id: string | null, extend?: boolean) => void;
  hover: (id: string | null) => void;
  side: Side;
  setSide: (side: Side) => void;
}

export const EditorContext = createContext<Editor | null>(null);
export const LitContext = createContext<Lit | null>(null);
/** The mics that are selected and pointed at, each apart: a hand changes them as it comes and takes
 * hold, and only what shows them is drawn anew then. */
type OneMic = Shared<string | null>;

export const SelectedContext = createContext<OneMic | null>(null);
export const HoveredContext = createContext<OneMic | null>(null);

/** Which mic it is: who has to change it asks for that, and is not drawn anew when it changes. */
export function useOneMic(context: Context<OneMic | null>): OneMic {
  const mic = useContext(context);
  if (!mic) throw new Error("useSelected and useHovered are for the steps of an open layout");
  return mic;
}

function useShared<T>({ subscribe, get }: Shared<T>): T {
  return useSyncExternalStore(subscribe, get);
}

export const useSelected = (): string | null => useShared(useOneMic(SelectedContext));
export const useHovered = (): string | null => useShared(useOneMic(HoveredContext));

export function useEditor(): Editor {
  const editor = useContext(EditorContext);
  if (!editor) throw new Error("useEditor is for the steps of an open layout");
  return editor;
}

type Same<T> = (before: T, now: T) => boolean;

/** What is picked, or what was picked before as long as that is the same to who asks. */
function useKept<T>(pick: (state: EditorState) => T, same: Same<T> = Object.is): () => T {
  const editor = useEditor();
  const last = useRef<{ is: T } | null>(null);
  return () => {
    const is = pick(editor.snapshot());
    if (!last.current || !same(last.current.is, is)) last.current = { is };
    return last.current.is;
  };
}

/** One value of the open layout: the part that asks is drawn anew only when it changes. */
export function useEditorPart<T>(pick: (state: EditorState) => T, same?: Same<T>): T {
  return useSyncExternalStore(useEditor().subscribe, useKept(pick, same));
}

/** As often as words can be read while a hand moves something: what is big follows at once. */
const CALM_MS = 100;

/**
 * `useEditorPart` for sentences, curves and fields: under a hand, ten times a second. What is read of
 * a mic under the hand has a pace of its own, by how long it takes to draw: it is drawn as it comes.
 */
export function useCalmPart<T>(pick: (state: EditorState) => T, same?: Same<T>): T {
  const editor = useEditor();
  const subscribe = useCallback(
    (listener: () => void) => {
      let clock: ReturnType<typeof setTimeout> | undefined;
      let last = 0;
      const tell = () => {
        clock = undefined;
        last = Date.now();
        listener();
      };
      const leave = editor.subscribe(() => {
        const { underHand, doc, still } = editor.snapshot();
        const wait = !underHand && doc !== still ? last + CALM_MS - Date.now() : 0;
        if (wait > 0) clock ??= setTimeout(tell, wait);
        else {
          clearTimeout(clock);
          tell();
        }
      });
      return () => {
        clearTimeout(clock);
        leave();
      };
    },
    [editor],
  );
  return useSyncExternalStore(subscribe, useKept(pick, same));
}

/** A value that changes at every frame, ten times a second. */
export function useCalm<T>(value: T): T {
  const [shown, show] = useState(value);
  const last = useRef(0);
  useEffect(() => {
    const clock = setTimeout(
      () => {
        last.current = Date.now();
        show(() => value);
      },
      Math.max(0, last.current + CALM_MS - Date.now()),
    );
    return () => clearTimeout(clock);
  }, [value]);
  return shown;
}

export function useLit(): Lit {
  const lit = useContext(LitContext);
  if (!lit) throw new Error("useLit is for the steps of an open layout");
  return lit;
}
