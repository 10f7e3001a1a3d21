/** What the walls do where the kit is under the hand: asked while it moves, laid over the rest. */
import { useEffect, useMemo, useState } from "react";
import type { Layout, Room as RoomDoc, SpotHere } from "../../api/types";
import { here as asked } from "../../core/handAsks";
import { Latest } from "../../core/latest";
import { Shared } from "../../core/shared";
import { useEditor, useEditorPart } from "../../parts/editing";

interface Asked {
  still: Layout;
  room: RoomDoc;
}

/** No answer came: rather no distances than those of another place. */
const UNKNOWN: SpotHere = { curves: {}, roughness_db: null, walls_m: {} };

/** Two: while one answer is drawn the next is being computed. */
const AT_ONCE = 2;

export interface Told {
  here: SpotHere;
  /** Where the kit was then. */
  room: RoomDoc;
}

/** What is told where the hand has the kit; null where what is kept tells it. */
export type HandHere = Shared<Told | null>;

/** `fresh` where the board is of what is kept, and not of what was there before. */
export function useHere(fresh: boolean): HandHere {
  const editor = useEditor();
  const moving = useEditorPart((s) => s.doc.room !== s.still.room);
  const [here] = useState(() => new Shared<Told | null>(null));
  const latest = useMemo(
    () =>
      new Latest<Asked, SpotHere>(
        ({ still, room }) => asked(still, room),
        (told, { room }) => here.set({ here: told, room }),
        (_, { room }) => here.set({ here: UNKNOWN, room }),
        AT_ONCE,
      ),
    [here],
  );
  // Before anything is drawn of the move: the answer is on its way meanwhile.
  useEffect(() => {
    let last = editor.snapshot().doc;
    return editor.subscribe(() => {
      const { doc, still } = editor.snapshot();
      const { room } = doc;
      if (doc === last) return;
      last = doc;
      if (room && room !== still.room) latest.want({ still, room });
    });
  }, [editor, latest]);
  useEffect(() => {
    if (moving || !fresh) return;
    latest.callOff();
    here.set(null);
  }, [latest, here, moving, fresh]);
  return here;
}
