/** What the walls do where the kit is under the hand: asked while it moves, laid over the rest. */
import { useEffect, useMemo, useState } from "react";
import { api, exactly } from "../../api/client";
import type { Layout, RoomBoard, Room as RoomDoc } from "../../api/types";
import { Latest } from "../../core/latest";
import { useEditor, useEditorPart } from "../../parts/editing";

type Here = RoomBoard["spots"]["here"];
type Asked = Pick<Layout, "kit" | "air"> & { room: RoomDoc };

/** No answer came: rather no distances than those of another place. */
const UNKNOWN: Here = { curves: {}, roughness_db: null, walls_m: {} };

/** Two: while one answer is drawn the next is being computed. */
const AT_ONCE = 2;

/** `fresh` where the board is of what is kept, and not of what was there before. */
export function useHere(board: RoomBoard | undefined, fresh: boolean): RoomBoard | undefined {
  const editor = useEditor();
  const moving = useEditorPart((s) => s.doc.room !== s.still.room);
  const [here, setHere] = useState<Here | null>(null);
  const latest = useMemo(
    () =>
      new Latest<Asked, Here>(
        (body) => exactly<Here>(api.POST("/api/room/here", { body })),
        setHere,
        () => setHere(UNKNOWN),
        AT_ONCE,
      ),
    [],
  );
  // Before anything is drawn of the move: the answer is on its way meanwhile.
  useEffect(() => {
    let asked = editor.snapshot().doc;
    return editor.subscribe(() => {
      const { doc, still } = editor.snapshot();
      const { room, kit, air } = doc;
      if (doc === asked) return;
      asked = doc;
      if (room && room !== still.room) latest.want({ room, kit, air });
    });
  }, [editor, latest]);
  useEffect(() => {
    if (moving || !fresh) return;
    latest.callOff();
    setHere(null);
  }, [latest, moving, fresh]);
  return useMemo(
    () => board && (here ? { ...board, spots: { ...board.spots, here } } : board),
    [board, here],
  );
}
