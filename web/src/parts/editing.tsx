/** The open layout for every step, with what is lit across all drawings. */
import {
  type Context,
  createContext,
  useCallback,
  useContext,
  useRef,
  useSyncExternalStore,
} from "react";
import { Calm } from "../core/calm";
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

export function useShared<T>({ subscribe, get }: Shared<T>): T {
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

/**
 * `useEditorPart` for sentences, curves and fields: under a hand, as often as they can be read. What
 * is read of a mic under the hand comes at that pace: it is drawn as it comes.
 */
export function useCalmPart<T>(pick: (state: EditorState) => T, same?: Same<T>): T {
  return useCalm(pick, underHandOrStill, same);
}

/** The same for what numbers are in, which come at every move of a mic under the hand. */
export function useCalmNumbers<T>(pick: (state: EditorState) => T, same?: Same<T>): T {
  return useCalm(pick, isStill, same);
}

const isStill = ({ underHand, doc, still }: EditorState) => underHand === null && doc === still;
const underHandOrStill = (state: EditorState) => state.underHand !== null || isStill(state);

function useCalm<T>(
  pick: (state: EditorState) => T,
  atOnce: (state: EditorState) => boolean,
  same?: Same<T>,
): T {
  const editor = useEditor();
  const subscribe = useCallback(
    (listener: () => void) => calmly(editor.subscribe, listener, () => atOnce(editor.snapshot())),
    [editor, atOnce],
  );
  return useSyncExternalStore(subscribe, useKept(pick, same));
}

/** What is told to a hand, and null where none is there, as often as it can be read (`least`, ms). */
export function useCalmShared<T>({ subscribe, get }: Shared<T | null>, least?: number): T | null {
  const calm = useCallback(
    (listener: () => void) => calmly(subscribe, listener, () => get() === null, least),
    [subscribe, get, least],
  );
  return useSyncExternalStore(calm, get);
}

type Subscribe = (listener: () => void) => () => void;

/** To listen to what a hand changes; `atOnce` says whether none does. */
function calmly(
  subscribe: Subscribe,
  listener: () => void,
  atOnce: () => boolean,
  least?: number,
): () => void {
  const calm = new Calm(listener, undefined, least);
  const leave = subscribe(() => calm.hear(atOnce()));
  return () => {
    calm.stop();
    leave();
  };
}

export function useLit(): Lit {
  const lit = useContext(LitContext);
  if (!lit) throw new Error("useLit is for the steps of an open layout");
  return lit;
}
