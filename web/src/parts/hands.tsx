/** The layout under the hand: every edit goes through the core, and what hangs on it goes along. */
import { createContext, type ReactNode, useContext, useEffect, useMemo } from "react";
import { api, exactly, fateOf } from "../api/client";
import type { Channel, Edit, Edited, Layout, Mic } from "../api/types";
import type { Editor } from "../core/editor";
import { channelsOf, micOf, withChannels, withMics } from "../core/edits";
import { frames } from "../core/frames";
import { tried } from "../core/handAsks";
import { Hands } from "../core/hands";
import type { Part } from "../core/kitParts";
import { centreOf, partAt, partOf, withPart } from "../core/kitParts";
import type { Point3 } from "../core/view";
import { useEditor } from "./editing";
import { useToast } from "./toast";

export const HandsContext = createContext<Hands | null>(null);

export function useHands(): Hands {
  const hands = useContext(HandsContext);
  if (!hands) throw new Error("useHands is for the steps of an open layout");
  return hands;
}

export function handsOn(editor: Editor, say: (words: string) => void): Hands {
  return new Hands({
    still: () => editor.snapshot().still,
    ask: (layout, edit) => exactly<Edited>(api.POST("/api/edit", { body: { layout, edit } })),
    tried,
    preview: (layout) => editor.preview(layout),
    shown: () => editor.snapshot().doc,
    show: (layout) => editor.show(layout),
    showWhole: (layout) => editor.showWhole(layout),
    withFrame: frames.draw,
    commit: (layout, what, soon, key) =>
      soon ? editor.commitSoon(layout, what, key) : editor.commit(layout, what, key),
    hold: () => editor.hold(),
    release: () => editor.release(),
    keep: (held) => editor.keepHeld(held),
    trouble: (error) => say(error.message),
    fateOf,
    away: (error) => editor.away(error),
    reached: () => editor.reached(),
  });
}

export function HandsProvider({ children }: { children: ReactNode }) {
  const editor = useEditor();
  const say = useToast();
  const hands = useMemo(() => handsOn(editor, say), [editor, say]);
  useEffect(() => hands.takeUp(editor.takeLeftOver()), [hands, editor]);
  return <HandsContext value={hands}>{children}</HandsContext>;
}

/** Take an edit as it stands. */
export function useTake(): (edit: Edit) => Promise<Edited | null> {
  const hands = useHands();
  return useMemo(() => (edit: Edit) => hands.commit(() => edit), [hands]);
}

/** Undo or redo, after everything that was let go of before. */
export function useStep(): (way: "undo" | "redo") => void {
  const editor = useEditor();
  const hands = useHands();
  return useMemo(() => (way) => void hands.settled().then(() => editor.step(way)), [editor, hands]);
}

interface MicHow {
  /** What the step is called, where it has a name of its own. */
  why?: string;
  soon?: boolean;
}

/** Change some fields of a mic; kept also while the server is away. */
export function useChangeMic(): (id: string, change: Partial<Mic>, how?: MicHow) => void {
  const hands = useHands();
  return useMemo(
    () => (id, change, how) => {
      const changed = (mic: Mic | undefined): Mic[] => (mic ? [{ ...mic, ...change }] : []);
      void hands.commit(
        (kept) => {
          const mics = changed(micOf(kept, id));
          return mics.length ? { do: "mics", mics, why: how?.why ?? "" } : null;
        },
        {
          soon: how?.soon,
          alone: (kept) => withMics(kept, changed(micOf(kept, id))),
          name: how?.why ?? `Changed ${id}`,
        },
      );
    },
    [hands],
  );
}

/** Change some fields of every track a mic feeds; kept also while the server is away. */
export function useChangeTracks(): (mic: string, change: Partial<Channel>) => void {
  const hands = useHands();
  return useMemo(
    () => (mic, change) => {
      const changed = (kept: Layout) => channelsOf(kept, mic).map((c) => ({ ...c, ...change }));
      void hands.commit(
        (kept) => {
          const channels = changed(kept);
          return channels.length ? { do: "channels", channels, why: "" } : null;
        },
        { alone: (kept) => withChannels(kept, changed(kept)), name: `Changed ${mic}` },
      );
    },
    [hands],
  );
}

/** Change one part by name; nothing happens when it is gone. */
export function useChangePart() {
  const hands = useHands();
  return useMemo(() => {
    const make =
      (id: string, change: (part: Part) => Part) => (doc: Parameters<typeof partOf>[0]) => {
        const part = partOf(doc, id);
        return part ? { do: "change" as const, was: id, part: change(part) } : null;
      };
    return {
      show: (id: string, change: (part: Part) => Part) =>
        hands.preview(make(id, change), (shown, kept) => {
          const part = partOf(kept, id);
          return part ? withPart(shown, change(part)) : shown;
        }),
      take: (id: string, change: (part: Part) => Part) => hands.commit(make(id, change)),
      /** By a step, as keys held down make many of: they add up, and are kept together. */
      nudge: (id: string, by: Point3) =>
        void hands.commit(
          make(id, (p) => {
            const [x, y, z] = centreOf(p);
            return partAt(p, [x + by[0], y + by[1], z + by[2]]);
          }),
          { soon: true },
        ),
    };
  }, [hands]);
}
