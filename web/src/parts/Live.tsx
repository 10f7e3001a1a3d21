/** Numbers that follow the hand: written where they stand, so that nothing round them is made anew. */
import { type HTMLAttributes, type RefObject, useLayoutEffect, useRef } from "react";
import type { EditorState } from "../core/editor";
import { useEditor } from "./editing";

interface Props extends Omit<HTMLAttributes<HTMLSpanElement>, "children"> {
  say: (state: EditorState) => string;
}

export function Live({ say, ...rest }: Props) {
  const editor = useEditor();
  const place = useRef<HTMLSpanElement>(null);
  useLayoutEffect(() => {
    const words = document.createTextNode("");
    const write = () => {
      const now = say(editor.snapshot());
      if (words.data !== now) words.data = now;
    };
    write();
    place.current?.replaceChildren(words);
    return editor.subscribe(write);
  }, [editor, say]);
  return <span ref={place} {...rest} />;
}

/**
 * The same in a field: what somebody types there stays. Whoever draws the field may not know where
 * the hand is, so it is written again after each drawing.
 */
export function useLiveField(
  say: (state: EditorState) => string,
): RefObject<HTMLInputElement | null> {
  const editor = useEditor();
  const field = useRef<HTMLInputElement>(null);
  useLayoutEffect(() => {
    const write = () => {
      const { current } = field;
      const now = say(editor.snapshot());
      if (current && !isTyped(current) && current.value !== now) current.value = now;
    };
    write();
    return editor.subscribe(write);
  });
  return field;
}

/** On a field that holds what somebody is typing. */
export const typing = (is: boolean) => ({ "data-typed": is || undefined });
const isTyped = (field: HTMLInputElement) => field.dataset.typed !== undefined;
