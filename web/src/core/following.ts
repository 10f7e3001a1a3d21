/**
 * One mic under the hand: the drawing moves it at every frame, by itself; the numbers follow as
 * fast as answers come. An answer holds what changes before one's eyes, and is laid over the
 * whole board that was there when the hand took hold.
 */
import type { Board, Follows, Layout, Mic, TermsOut } from "../api/types";
import { CALM_MS, calmAfter } from "./calm";
import { Deadline } from "./deadline";
import { Latest } from "./latest";
import { Shared } from "./shared";

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

/** Words are asked for more seldom while the hand is quicker than anybody reads by, metres a second, */
const QUICK_M_S = 0.3;
const QUICK_MS = 250;
/** a fortieth of the time then, */
const QUICK_TIMES_DRAWN = 40;
/** and where numbers come slowly not oftener than once in so many of those. */
const NUMBERS_A_WORD = 6;
/** Numbers are asked for once a frame or so, however often the hand is told of; the last always. */
const PACE_MS = 12;
/** Older than this, numbers are said to be behind. */
const BEHIND_MS = 300;

/** A move, and when it was made. */
type Asked = Move & { at: number };

interface Screen {
  ask(move: Move): Promise<Follows>;
  /** The numbers of a place; the words, of it or of one just before. */
  show(told: Follows, mic: Mic): void;
  read(words: Follows, mic: Mic): void;
  failed(error: Error): void;
  /** The numbers are behind the hand, or again with it. */
  late(behind: boolean): void;
}

type Watcher = (mic: Mic | null) => void;

export class Following {
  /** The mic where the hand has it now. */
  mic: Mic | null = null;
  /** How that is at its drum or cymbal, where it is a close one. */
  readonly close = new Shared<{ mic: string; terms: TermsOut } | null>(null);
  private readonly watchers = new Set<Watcher>();
  private readonly numbers: Latest<Asked, Follows>;
  /** Words take twice as long: asked for by themselves, they hold no number up. */
  private readonly words: Latest<Asked, Follows>;
  /** For which place words were asked for last, when, and how many numbers came since. */
  private worded = { mic: null as Mic | null, at: 0, since: NUMBERS_A_WORD };
  /** How long it took to draw the last, milliseconds. */
  private drawn = 0;
  private askedAt = 0;
  private readonly pace = new Deadline();
  private readonly patience = new Deadline();
  /** Asks for the words of a place at which the hand stays. */
  private readonly lastWords = new Deadline();

  constructor(private readonly screen: Screen) {
    const ask = (move: Asked) => screen.ask(move);
    const failed = (error: Error) => screen.failed(error);
    const show = (told: Follows, move: Asked) => {
      this.heard(move);
      screen.show(told, move.mic);
    };
    // One is drawn, one comes with the next frame, one is being computed.
    this.numbers = new Latest(ask, show, failed, 3);
    this.words = new Latest(ask, (words, move) => this.read(words, move.mic), failed);
  }

  /** Told at once where the hand is, then at every move; null when it lets go. */
  watch = (watcher: Watcher): (() => void) => {
    this.watchers.add(watcher);
    watcher(this.mic);
    return () => this.watchers.delete(watcher);
  };

  /** A hand is on a mic: what its first move will take is made ready, nothing is asked yet. */
  hold(mic: Mic): void {
    this.mic = mic;
    for (const watcher of this.watchers) watcher(mic);
  }

  move(move: Omit<Move, "words">): void {
    this.hold(move.mic);
    if (!this.patience.running) this.waitOn();
    this.lastWords.clear();
    const asked = { ...move, words: false, at: Date.now() };
    const early = this.askedAt + PACE_MS - asked.at;
    if (early > 0) this.pace.put(early, () => this.want(asked));
    else this.want(asked);
  }

  private want(asked: Asked): void {
    this.pace.clear();
    this.askedAt = Date.now();
    this.numbers.want(asked);
    if (this.worded.since >= NUMBERS_A_WORD && this.wordsAreDue(asked)) this.wantWords(asked);
  }

  private wordsAreDue({ mic, at }: Asked): boolean {
    const { mic: from, at: last } = this.worded;
    const far = from
      ? Math.hypot(...mic.position_m.map((p, i) => p - (from.position_m[i] ?? p)))
      : 0;
    const quick = far / (at - last) > QUICK_M_S / 1000;
    const how = quick ? ([QUICK_TIMES_DRAWN, QUICK_MS] as const) : [];
    return at - last >= calmAfter(this.drawn, ...how);
  }

  /** The hand is gone: nothing on its way matters any more. */
  stop(): void {
    if (!this.mic) return;
    this.numbers.callOff();
    this.words.callOff();
    this.pace.clear();
    this.lastWords.clear();
    this.mic = null;
    this.close.set(null);
    this.worded.since = NUMBERS_A_WORD;
    this.rest(false);
    for (const watcher of this.watchers) watcher(null);
  }

  private wantWords(move: Asked): void {
    this.worded = { mic: move.mic, at: Date.now(), since: 0 };
    this.words.want({ ...move, words: true });
  }

  private read(words: Follows, mic: Mic): void {
    const began = performance.now();
    this.close.set(words.close && { mic: words.mic, terms: words.close });
    this.screen.read(words, mic);
    // Who listens draws before this.
    queueMicrotask(() => {
      this.drawn = performance.now() - began;
    });
  }

  private heard(move: Asked): void {
    this.worded.since++;
    const newest = move.mic === this.mic;
    this.rest(!newest && Date.now() - move.at > BEHIND_MS);
    if (!newest) this.waitOn();
    else if (move.mic !== this.worded.mic) this.lastWords.put(CALM_MS, () => this.wantWords(move));
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
