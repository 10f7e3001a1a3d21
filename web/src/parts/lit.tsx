/** What lights up across all drawings of the layout that is shown. */
import {
  createContext,
  type Dispatch,
  type ReactNode,
  type SetStateAction,
  useCallback,
  useContext,
  useLayoutEffect,
  useMemo,
  useRef,
  useState,
} from "react";
import { partnerOf } from "../core/edits";
import type { Side } from "../core/view";
import { LitContext, useEditor } from "./editing";

type Put<T> = Dispatch<SetStateAction<T>>;

interface State {
  selected: string | null;
  setSelected: Put<string | null>;
  hovered: string | null;
  hover: Put<string | null>;
  side: Side;
  setSide: Put<Side>;
}

const StateContext = createContext<State | null>(null);

/** What is selected and pointed at, and from which side one looks: kept from step to step. */
export function LitProvider({ children }: { children: ReactNode }) {
  const [selected, setSelected] = useState<string | null>(null);
  const [hovered, hover] = useState<string | null>(null);
  const [side, setSide] = useState<Side>("drummer");
  const state = useMemo(
    () => ({ selected, setSelected, hovered, hover, side, setSide }),
    [selected, hovered, side],
  );
  return (
    <StateContext value={state}>
      <LitHere>{children}</LitHere>
    </StateContext>
  );
}

/** The same for the layout that is shown here: what is selected opens its pair in it. */
export function LitHere({ children }: { children: ReactNode }) {
  const editor = useEditor();
  const state = useContext(StateContext);
  if (!state) throw new Error("LitHere is for the steps of an open layout");
  const { selected, setSelected, hovered, hover, side, setSide } = state;
  // Looked up when something is selected: marks and flags that stay as they are take no new hands.
  const last = useRef(selected);
  useLayoutEffect(() => {
    last.current = selected;
  }, [selected]);
  const select = useCallback(
    (id: string | null, extend = false) => {
      const { doc, focus } = editor.snapshot();
      if (id && extend && last.current && last.current !== id) {
        editor.open({ anchor: last.current, mover: id, source: null });
      } else if (id) {
        const partner = partnerOf(doc, id);
        if (partner) editor.open({ anchor: partner, mover: id, source: null });
        else if (focus && focus.mover !== id && focus.anchor !== id) editor.open(focus);
      }
      setSelected(id);
    },
    [editor, setSelected],
  );
  const lit = useMemo(
    () => ({ selected, hovered, select, hover, side, setSide }),
    [selected, hovered, select, hover, side, setSide],
  );
  return <LitContext value={lit}>{children}</LitContext>;
}
