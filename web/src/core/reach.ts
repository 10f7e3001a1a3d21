/** How far the tapes reach: behind the furthest mic, and under a hand no less than before. */
import type { Board, Layout } from "../api/types";
import type { EditorState } from "./editor";
import { firstDrum } from "./words";

/** The drums that have a tape. */
export const refsOf = (layout: Layout) => [firstDrum(layout, "snare"), firstDrum(layout, "kick")];

/** Their columns on the board. */
export const columnsOf = (layout: Layout, board: Board) =>
  refsOf(layout).map((d) => board.sources.findIndex((s) => s.id === d.id));

/** No shorter than this, metres, and in such steps. */
const LEAST_M = 1.2;
const STEP_M = 0.2;
const SPARE_M = 0.05;
/** A hand that passes their end mostly goes on: they are drawn anew once, not for each step. */
const LEAP = 3;

/** In steps. */
function tapeEnd(layout: Layout, board: Board): number {
  const columns = columnsOf(layout, board);
  const far = Math.max(LEAST_M, ...columns.flatMap((k) => board.tape_m.map((row) => row[k] ?? 0)));
  return Math.ceil((far + SPARE_M) / STEP_M);
}

/** Where the tapes end, metres. They only grow under a hand: else they would hop to and fro with it. */
export function reach(): (state: Pick<EditorState, "board" | "still" | "underHand">) => number {
  let [held, end]: [string | null, number] = [null, 0];
  return ({ board, still, underHand }) => {
    const far = board ? tapeEnd(still, board) : 0;
    const stays = underHand !== null && held === underHand;
    if (!stays) end = far;
    else if (far > end) end = far + LEAP;
    held = underHand;
    return end * STEP_M;
  };
}
