/** A fader under the hand: what it would change is shown while it moves, and kept where it is let go. */
import { useMemo, useRef, useState } from "react";
import type { Board, Edit } from "../../../api/types";
import { useEditor } from "../../../parts/editing";
import { useHands } from "../../../parts/hands";

export interface Faders {
  /** The fader under the hand and where it is, dB. */
  held: { id: string; db: number } | null;
  /** The board as it was before the hand took hold. */
  before: Board | null;
  onShow: (id: string, db: number) => void;
  onTake: (id: string, db: number) => void;
  /** The hand was taken away: everything is as it was. */
  onBack: () => void;
  onStep: (id: string, by: number) => void;
  onMute: (id: string) => void;
  onUsual: (id: string) => void;
}

export function useFaders(): Faders {
  const editor = useEditor();
  const hands = useHands();
  const [held, setHeld] = useState<Faders["held"]>(null);
  const before = useRef<Board | null>(null);
  const acts = useMemo(() => {
    const up = (id: string) => editor.snapshot().board?.tracks.find((t) => t.id === id);
    const to = (channel: string, to_db: number | null) => (): Edit => ({
      do: "fade",
      channel,
      to_db,
    });
    const done = () => {
      before.current = null;
      setHeld(null);
    };
    return {
      onShow: (id: string, db: number) => {
        before.current ??= editor.snapshot().board;
        setHeld({ id, db });
        hands.preview(to(id, db));
      },
      onTake: (id: string, db: number) => void hands.commit(to(id, db)).then(done),
      onBack: () => {
        editor.preview(editor.snapshot().still);
        done();
      },
      onStep: (id: string, by: number) =>
        void hands.commit(() => ({ do: "fade", channel: id, by_db: by }), { soon: true }),
      onMute: (channel: string) => {
        const muted = up(channel)?.heard ?? true;
        void hands.commit(() => ({ do: "faders", faders: [{ channel, muted }], why: "" }));
      },
      onUsual: (id: string) => void hands.commit(to(id, null)),
    };
  }, [editor, hands]);
  return { held, before: before.current, ...acts };
}
