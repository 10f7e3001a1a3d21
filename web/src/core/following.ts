/**
 * One mic under the hand: the drawing moves it at every frame, by itself; the numbers follow as
 * fast as answers come. An answer holds what changes before one's eyes, and is laid over the
 * whole board that was there when the hand took hold.
 */
import type { Board, Follows, Layout, Mic } from "../api/types";
import { Deadline } from "./deadline";
import { Latest } from "./latest";

/** The pair that is open: the anchor stands, the mover moves; without a source its worst one. */
export interface FocusKey {
  anchor: string;
  mover: string;
  source: string | null;
}

export interface Move {
  /** As it stood before the move. */
  still: Layout;
  mic: Mic;
  focus: FocusKey | null;
  /** Ask for what is read as well: sentences, curves, better places. */
  words: boolean;
}

/** Words are asked for as often as they can be read. */
const WORDS_MS = 100;
/** Older than this, numbers are said to be behind. */
const BEHIND_MS = 300;

/** A move, and when it was made; whether words go with it is known when it is asked. */
type Asked = Move & { at: number };

interface Screen {
  ask(move: Move): Promise<Follows>;
  show(told: Follows, mic: Mic): void;
  failed(error: Error): void;
  /** The numbers are behind the hand, or again with it. */
  late(behind: boolean): void;
}

type Watcher = (mic: Mic | null) => void;

export class Following {
  /** The mic where the hand has it now. */
  mic: Mic | null = null;
  private readonly watchers = new Set<Watcher>();
  private readonly latest: Latest<Asked, Follows>;
  /** When words were asked for last. */
  private worded = 0;
  private readonly patience = new Deadline();
  /** Asks for the words of a place at which the hand stays. */
  private readonly lastWords = new Deadline();

  constructor(private readonly screen: Screen) {
    this.latest = new Latest(
      (move) => {
        move.words = this.wantsWords();
        return screen.ask(move);
      },
      (told, move) => {
        this.heard(move);
        screen.show(told, move.mic);
      },
      (error) => screen.failed(error),
      3, // one is drawn, one comes with the next frame, one is being computed
    );
  }

  /** Told at once where the hand is, then at every move; null when it lets go. */
  watch = (watcher: Watcher): (() => void) => {
    this.watchers.add(watcher);
    watcher(this.mic);
    return () => this.watchers.delete(watcher);
  };

  move(move: Omit<Move, "words">): void {
    this.mic = move.mic;
    for (const watcher of this.watchers) watcher(move.mic);
    if (!this.patience.running) this.waitOn();
    this.lastWords.clear();
    this.latest.want({ ...move, words: false, at: Date.now() });
  }

  /** The hand is gone: nothing on its way matters any more. */
  stop(): void {
    if (!this.mic) return;
    this.latest.callOff();
    this.lastWords.clear();
    this.mic = null;
    this.rest(false);
    for (const watcher of this.watchers) watcher(null);
  }

  private wantsWords(): boolean {
    const now = Date.now();
    const wants = now - this.worded >= WORDS_MS;
    if (wants) this.worded = now;
    return wants;
  }

  private heard(move: Asked): void {
    const newest = move.mic === this.mic;
    this.rest(!newest && Date.now() - move.at > BEHIND_MS);
    if (!newest) this.waitOn();
    else if (!move.words) {
      const ask = () => this.latest.want({ ...move, at: Date.now() });
      this.lastWords.put(WORDS_MS, ask);
    }
  }

  private rest(behind: boolean): void {
    this.patience.clear();
    this.screen.late(behind);
  }

  private waitOn(): void {
    this.patience.put(BEHIND_MS, () => this.screen.late(true));
  }
}

/** The board with what follows the hand in the place of what was there. */
export function merged(board: Board, told: Follows): Board {
  const i = board.mic_ids.indexOf(told.mic);
  if (i < 0) return board;
  return {
    ...board,
    tape_m: board.tape_m.with(i, told.tape_m),
    path_m: board.path_m.with(i, told.path_m),
    arrival_s: board.arrival_s.with(i, told.arrival_s),
    after_gain_db: board.after_gain_db.with(i, told.after_gain_db),
    sign: board.sign.with(i, told.sign),
    aim: said(board.aim, told.mic, told.aim),
    blocked: said(board.blocked, told.mic, told.blocked),
    focus: withPair(board.focus, told.pair),
  };
}

/** The same words as long as nothing is said anew, so that nothing is drawn anew for them. */
function said(
  words: Record<string, string>,
  mic: string,
  now: string | null,
): Record<string, string> {
  return now === null || words[mic] === now ? words : { ...words, [mic]: now };
}

function withPair(focus: Board["focus"], pair: Follows["pair"]): Board["focus"] {
  if (!focus || !pair || focus.a !== pair.a || focus.b !== pair.b) return focus;
  const { rows: worded = [], ...words } = pair.in_words ?? {};
  const now = new Map(pair.distances.map((d) => [d.source, d]));
  const read = new Map(worded.map((r) => [r.source, r]));
  // What is judged and said is a tenth of a second older than the distances: it comes with the words.
  const rows = focus.rows.map((was) => {
    const distances = now.get(was.source);
    return read.get(was.source) ?? (distances ? { ...was, ...distances } : was);
  });
  if (!("source" in words)) return { ...focus, rows };
  const { spots, ring, ...told } = words;
  const before = focus.places;
  const places = spots && before ? { ...before, ...spots, ring: ring ?? before.ring } : before;
  return { ...focus, ...told, rows, places };
}
