/**
 * Edits on their way to the core and back: one at a time, in order.
 *
 * While something is dragged only the newest place waits; what is let go of is never dropped.
 * Each edit is made from the layout as it is when its turn comes, so keys held down add up. An
 * edit is made on what is kept, never on what is only shown.
 */
import type { Edit, Edited, Layout } from "../api/types";
import { newKey } from "./key";
import type { Held } from "./outbox";
import { sameWhereEqual } from "./same";
import type { Fate } from "./world";

export type Make = (kept: Layout) => Edit | null;

/** What is shown, with what the hand holds where it is; made from what is kept. */
export type Holding = (shown: Layout, kept: Layout) => Layout;

export interface How {
  /** It may be followed at once by the next of its kind: keys held down. */
  soon?: boolean;
  /** What to keep of it while the server is away: the edit's own values, without its rules. */
  alone?: (kept: Layout) => Layout;
  /** What it is called then. */
  name?: string;
}

export interface World {
  /** The layout without what the hand is just doing. */
  still(): Layout;
  /** `shown` where it is only to be shown while the hand moves on. */
  ask(layout: Layout, edit: Edit, shown: boolean): Promise<Edited>;
  preview(layout: Layout): void;
  /** What is shown, and to show it otherwise at once: nothing is asked. */
  shown(): Layout;
  show(layout: Layout): void;
  /** With all that goes along: its numbers are asked for when the hand rests. */
  showWhole(layout: Layout): void;
  /** With the next frame, after the hand has been moved in it. */
  withFrame(step: () => void): void;
  commit(layout: Layout, what: string, soon: boolean, key: string): void;
  /** An edit was let go of; and it has been answered. */
  hold(): void;
  release(): void;
  /** What was let go of and is not answered yet, to be kept over a closed tab. */
  keep(held: Held[]): void;
  trouble(error: Error): void;
  fateOf(error: unknown): Fate;
  /** The server is away: resolves when it is worth asking again. */
  away(error: unknown): Promise<void>;
  reached(): void;
}

interface Turn {
  make: Make;
  shown: boolean;
  how: How;
  key: string;
  done: (edited: Edited | null) => void;
}

export class Hands {
  private waiting: Turn[] = [];
  private now: Turn | null = null;
  private running: Promise<void> | null = null;
  /** Counts what was called off, so that a late answer is known for one. */
  private round = 0;
  /** What is held, where the hand has it now: it is never older than the rest that is shown. */
  private hand: Holding | null = null;
  /** What came of where the hand was, not shown yet. */
  private answered: Layout | null = null;

  constructor(private readonly world: World) {}

  /**
   * Show what an edit would do while the hand still moves. What the hand itself holds can be shown
   * at once, without what goes along; the rest follows as answers come.
   */
  preview(make: Make, hand: Holding | null = null): void {
    this.hand = hand;
    if (hand) this.world.show(this.held(this.world.shown()));
    this.waiting = this.waiting.filter((w) => !w.shown);
    this.begin({ make, shown: true, how: {}, key: "", done: () => undefined });
  }

  /** Show what a hand holds that nothing goes along with: there is nothing to ask meanwhile. */
  hold(hand: Holding): void {
    this.hand = hand;
    this.world.show(this.held(this.world.shown()));
  }

  /** Take an edit; resolves to what came of it, or null when it was not taken. */
  commit(make: Make, how: How = {}, key: string = newKey()): Promise<Edited | null> {
    this.waiting = this.waiting.filter((w) => !w.shown);
    this.hand = null;
    this.world.hold();
    return new Promise((done) => {
      const answered = (edited: Edited | null) => {
        this.world.release();
        done(edited);
      };
      this.begin({ make, shown: false, how, key, done: answered });
      this.keep();
    });
  }

  /** What an earlier page had let go of: each is kept once, by its name. */
  takeUp(held: Held[]): void {
    for (const { edit, key } of held) void this.commit(() => edit, {}, key);
  }

  /** Nothing that is only shown matters any more: back to what is kept. */
  callOff(): void {
    this.round++;
    this.hand = null;
    this.waiting = this.waiting.filter((w) => !w.shown);
    this.world.preview(this.world.still());
  }

  /** Resolves when every edit that was let go of has been answered. */
  async settled(): Promise<void> {
    while (this.running) await this.running;
  }

  private held(shown: Layout): Layout {
    return this.hand ? this.hand(shown, this.world.still()) : shown;
  }

  /** Under a hand the numbers of the whole layout can wait until it rests. */
  private showAnswer(layout: Layout): void {
    // Drawn with the move that comes next, not by itself before it.
    this.answered = this.hand && layout;
    if (this.answered) this.world.withFrame(this.showAnswered);
    else this.world.preview(layout);
  }

  private readonly showAnswered = (): void => {
    const { answered } = this;
    this.answered = null;
    if (!answered || !this.hand) return;
    // With the hand where it is now, mostly nothing differs from what is shown.
    this.world.showWhole(sameWhereEqual(this.world.shown(), this.held(answered)));
  };

  private begin(turn: Turn): void {
    this.waiting.push(turn);
    this.running ??= this.run();
  }

  private async run(): Promise<void> {
    for (let turn = this.waiting.shift(); turn; turn = this.waiting.shift()) {
      this.now = turn;
      const edited = await this.one(turn);
      this.now = null;
      this.keep();
      turn.done(edited);
    }
    // At once: an edit that comes between the last turn and this line would wait for ever.
    this.running = null;
  }

  /** Write down what would be lost with this page. */
  private keep(): void {
    const still = this.world.still();
    const turns = [this.now, ...this.waiting].filter((t) => t !== null && !t.shown) as Turn[];
    this.world.keep(
      turns.flatMap(({ make, key }) => {
        try {
          const edit = make(still);
          return edit ? [{ edit, key }] : [];
        } catch {
          return []; // what cannot be made is told when its turn comes
        }
      }),
    );
  }

  private async one(turn: Turn): Promise<Edited | null> {
    for (;;) {
      const { round } = this;
      const still = this.world.still();
      try {
        const edit = turn.make(still);
        if (!edit) return null;
        const told = await this.world.ask(still, edit, turn.shown);
        const answer = { ...told, layout: sameWhereEqual(this.world.shown(), told.layout) };
        this.world.reached();
        // Something else was kept meanwhile, a name or an undo: it would be lost under this answer.
        if (!turn.shown && this.world.still() !== still) continue;
        const overtaken = this.round !== round || this.waiting.some((w) => !w.shown);
        const { soon = false } = turn.how;
        if (!turn.shown) this.world.commit(answer.layout, answer.words, soon, turn.key);
        else if (!overtaken) this.showAnswer(answer.layout);
        return answer;
      } catch (error) {
        const fate = this.world.fateOf(error);
        const unanswered = fate === "away" || fate === "stranger";
        if (!unanswered || turn.shown || turn.how.alone)
          return this.without(turn, error as Error, unanswered);
        await this.world.away(error);
      }
    }
  }

  /** No answer: what can be kept without one is; else back to what holds, nothing half done. */
  private without(turn: Turn, error: Error, unanswered: boolean): Edited | null {
    const { alone, name = "Changed", soon = false } = turn.how;
    if (alone && unanswered) {
      const layout = alone(this.world.still());
      this.world.commit(layout, name, soon, turn.key);
      return { layout, words: name, moved: [], made: null };
    }
    // While it is still held it stays with the hand, which may yet come to where it can be.
    if (!turn.shown || !this.hand) this.world.preview(this.world.still());
    this.world.trouble(error);
    return null;
  }
}
