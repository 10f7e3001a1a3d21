/** Numbers that follow the hand: written where they stand, so that nothing round them is made anew. */
import { type HTMLAttributes, useLayoutEffect, useRef } from "react";
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
