/**
 * What followed the hand last. A whole board comes later than that and may be of a place that the
 * hand has left since: then what followed it is newer, the numbers and the words.
 */
import type { Board, Follows, Layout, Mic } from "../api/types";
import { micOf } from "./edits";
import { merged } from "./following";

interface Said {
  told: Follows;
  mic: Mic;
}

export class Trail {
  private numbers: Said | null = null;
  private words: Said | null = null;
  /** Of which layout the last board was. */
  private of: Layout | null = null;

  /** Numbers of a place have come: over the board as it is. */
  show(told: Follows, mic: Mic, board: Board): Board {
    this.numbers = { told, mic };
    return merged(board, told);
  }

  /** Words have; the numbers that were shown before them may be newer, and so may the board be. */
  read(told: Follows, mic: Mic, board: Board, hand: Mic | null): Board {
    const own = this.of && micOf(this.of, told.mic);
    if (own && hand && stands(own, hand) && !stands(mic, hand)) return board;
    this.words = { told, mic };
    const worded = merged(board, told);
    return this.numbers ? merged(worded, this.numbers.told) : worded;
  }

  /** A board that was asked of a layout, under what is newer; `hand` is the mic it holds now. */
  over(board: Board, asked: Layout, now: Layout, hand: Mic | null): Board {
    this.of = asked;
    return [this.words, this.numbers].reduce(
      (under, said) => (said && isNewer(said, asked, now, hand) ? merged(under, said.told) : under),
      board,
    );
  }

  /** The board of all that was let go of is there. */
  forget(): void {
    this.numbers = null;
    this.words = null;
  }
}

/** Under a hand whatever it has left is older; once it let go, what was said of where it did stays. */
function isNewer({ told, mic }: Said, asked: Layout, now: Layout, hand: Mic | null): boolean {
  const held = hand?.id === told.mic ? hand : null;
  const is = held ?? micOf(now, told.mic);
  const was = micOf(asked, told.mic);
  if (!is || !was || stands(was, is)) return false;
  return held !== null || stands(mic, is);
}

const stands = (one: Mic, two: Mic): boolean =>
  [...one.position_m, ...one.aim].every((x, i) => x === [...two.position_m, ...two.aim][i]);
