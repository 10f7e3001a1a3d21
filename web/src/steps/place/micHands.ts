/** What a hand does to the mics of Place: on the charts, by a key, by a thumb. */
import { useMemo } from "react";
import type { Mic } from "../../api/types";
import { micOf, withMic } from "../../core/edits";
import type { Point3 } from "../../core/view";
import { useEditor } from "../../parts/editing";
import { useChangeMic, useHands } from "../../parts/hands";

const vec = (p: Point3): [number, number, number] => [p[0], p[1], p[2]];

/** Shown while it moves, kept where it lets go. */
export function useMicHands() {
  const editor = useEditor();
  const hands = useHands();
  const change = useChangeMic();
  return useMemo(() => {
    const take = (id: string, fields: Partial<Mic>, done: boolean) => {
      const mic = micOf(editor.snapshot().still, id);
      if (!mic) return;
      if (!done) return editor.move({ ...mic, ...fields }, "aim" in fields);
      editor.drop({ ...mic, ...fields });
      change(id, fields);
    };
    return {
      onMove: (id: string, to: Point3, done: boolean) => take(id, { position_m: vec(to) }, done),
      onHold: (id: string) => {
        const mic = micOf(editor.snapshot().still, id);
        if (mic) editor.following.hold(mic);
        return () => editor.following.stop();
      },
      onAim: (id: string, aim: Point3, done: boolean) => take(id, { aim: vec(aim) }, done),
      // Keys add up: each step is made on where the mic is when its turn comes.
      onNudge: (id: string, to: Point3) => {
        const from = micOf(editor.snapshot().doc, id)?.position_m ?? vec(to);
        const step = (mic: Mic): Mic => ({
          ...mic,
          position_m: vec(mic.position_m.map((p, i) => p + (to[i] ?? 0) - (from[i] ?? 0)) as never),
        });
        void hands.commit(
          (kept) => {
            const mic = micOf(kept, id);
            return mic ? { do: "mics", mics: [step(mic)], why: "" } : null;
          },
          {
            soon: true,
            name: `Moved ${id}`,
            alone: (kept) => {
              const mic = micOf(kept, id);
              return mic ? withMic(kept, id, step(mic)) : kept;
            },
          },
        );
      },
    };
  }, [editor, hands, change]);
}
