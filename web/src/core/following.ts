/**
 * One mic under the hand: the drawing moves it at every frame, by itself; the numbers follow as
 * fast as answers come. An answer holds what changes before one's eyes, and is laid over the
 * whole board that was there when the hand took hold.
 */
import type { Board, Follows, Layout, Mic } from "../api/types";
import type { FocusKey } from "./editor";
import { Latest } from "./latest";

export interface Move {
  /** As it stood before the move. */
  still: Layout;
  mic: Mic;
  focus: FocusKey | null;
}

/** Older than this, numbers are said to be behind. */
const BEHIND_MS = 300;

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
  private readonly latest: Latest<Move & { at: number }, Follows>;
  private clock: ReturnType<typeof setTimeout> | undefined;

  constructor(private readonly screen: Screen) {
    this.latest = new Latest(
      (move) => screen.ask(move),
      (told, { mic, at }) => {
        this.heard(mic, at);
        screen.show(told, mic);
      },
      (error) => screen.failed(error),
      2, // while one answer is drawn the next is being computed
    );
  }

  /** Told at once where the hand is, then at every move; null when it lets go. */
  watch = (watcher: Watcher): (() => void) => {
    this.watchers.add(watcher);
    watcher(this.mic);
    return () => this.watchers.delete(watcher);
  };

  move(move: Move): void {
    this.mic = move.mic;
    for (const watcher of this.watchers) watcher(move.mic);
    this.clock ??= setTimeout(() => this.screen.late(true), BEHIND_MS);
    this.latest.want({ ...move, at: Date.now() });
  }

  /** The hand is gone: nothing on its way matters any more. */
  stop(): void {
    this.latest.callOff();
    this.mic = null;
    this.rest(false);
    for (const watcher of this.watchers) watcher(null);
  }

  private heard(mic: Mic, at: number): void {
    this.rest(mic !== this.mic && Date.now() - at > BEHIND_MS);
    if (mic !== this.mic) this.clock = setTimeout(() => this.screen.late(true), BEHIND_MS);
  }

  private rest(behind: boolean): void {
    clearTimeout(this.clock);
    this.clock = undefined;
    this.screen.late(behind);
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
function said(words: Record<string, string>, mic: string, now: string): Record<string, string> {
  return words[mic] === now ? words : { ...words, [mic]: now };
}

function withPair(focus: Board["focus"], pair: Follows["pair"]): Board["focus"] {
  if (!focus || !pair || focus.a !== pair.a || focus.b !== pair.b) return focus;
  const { spots, ring, rows, ...now } = pair;
  const before = focus.places;
  const places = spots && before ? { ...before, ...spots, ring: ring ?? before.ring } : before;
  const fresh = new Map(rows.map((r) => [r.source, r]));
  return { ...focus, ...now, rows: focus.rows.map((r) => fresh.get(r.source) ?? r), places };
}
