/** What lights up across all drawings of the layout that is shown. */
import {
  createContext,
  type Dispatch,
  type ReactNode,
  type SetStateAction,
  useCallback,
  useContext,
  useMemo,
  useState,
} from "react";
import { partnerOf } from "../core/edits";
import { Shared } from "../core/shared";
import type { Side } from "../core/view";
import { HoveredContext, LitContext, SelectedContext, useEditor, useOneMic } from "./editing";

interface State {
  side: Side;
  setSide: Dispatch<SetStateAction<Side>>;
}

const StateContext = createContext<State | null>(null);

const noMic = () => new Shared<string | null>(null);

/** What is selected and pointed at, and from which side one looks: kept from step to step. */
export function LitProvider({ children }: { children: ReactNode }) {
  const [selected] = useState(noMic);
  const [hovered] = useState(noMic);
  const [side, setSide] = useState<Side>("drummer");
  const state = useMemo(() => ({ side, setSide }), [side]);
  return (
    <StateContext value={state}>
      <SelectedContext value={selected}>
        <HoveredContext value={hovered}>
          <LitHere>{children}</LitHere>
        </HoveredContext>
      </SelectedContext>
    </StateContext>
  );
}

/** The same for the layout that is shown here: what is selected opens its pair in it. */
export function LitHere({ children }: { children: ReactNode }) {
  const editor = useEditor();
  const selected = useOneMic(SelectedContext);
  const hover = useOneMic(HoveredContext).set;
  const state = useContext(StateContext);
  if (!state) throw new Error("LitHere is for the steps of an open layout");
  const { side, setSide } = state;
  const select = useCallback(
    (id: string | null, extend = false) => {
      const { doc, focus } = editor.snapshot();
      const last = selected.get();
      if (id && extend && last && last !== id) {
        editor.open({ anchor: last, mover: id, source: null });
      } else if (id) {
        const partner = partnerOf(doc, id);
        if (partner) editor.open({ anchor: partner, mover: id, source: null });
        else if (focus && focus.mover !== id && focus.anchor !== id) editor.open(focus);
      }
      selected.set(id);
    },
    [editor, selected],
  );
  const lit = useMemo(() => ({ select, hover, side, setSide }), [select, hover, side, setSide]);
  return <LitContext value={lit}>{children}</LitContext>;
}
