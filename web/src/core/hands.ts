/**
 * Edits on their way to the core and back: what is let go of one at a time, in order.
 *
 * While something is dragged a few places are under way and only the newest waits; what is let go
 * of is never dropped. Each edit is made from the layout as it is when its turn comes, so keys held
 * down add up. An edit is made on what is kept, never on what is only shown.
 */
import type { Edit, Edited, Layout } from "../api/types";
import { newKey } from "./key";
import { Latest } from "./latest";
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
  ask(layout: Layout, edit: Edit): Promise<Edited>;
  /** What would come of it, only to be shown while the hand moves on. */
  tried(layout: Layout, edit: Edit): Promise<Layout>;
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

/** Something that was let go of. */
interface Turn {
  make: Make;
  how: How;
  key: string;
  done: (edited: Edited | null) => void;
}

/** What would come of an edit that is only shown, made on what was kept. */
interface Trial {
  edit: Edit;
  still: Layout;
}

/** While one answer is drawn the next is being computed. */
const AT_ONCE = 2;

export class Hands {
  private waiting: Turn[] = [];
  private now: Turn | null = null;
  private running: Promise<void> | null = null;
  /** The newest that is to be shown; asked for when nothing that was let go of is under way. */
  private wanted: Make | null = null;
  private readonly trials: Latest<Trial, Layout>;
  /** What is held, where the hand has it now: it is never older than the rest that is shown. */
  private hand: Holding | null = null;
  /** What came of where the hand was, not shown yet. */
  private answered: Layout | null = null;

  constructor(private readonly world: World) {
    this.trials = new Latest<Trial, Layout>(
      ({ edit, still }) => world.tried(still, edit),
      (layout, { still }) => this.tried(layout, still),
      (error) => this.notTried(error),
      AT_ONCE,
    );
  }

  /** Whether something is held that is shown where the hand has it. */
  get holds(): boolean {
    return this.hand !== null;
  }

  /**
   * Show what an edit would do while the hand still moves. What the hand itself holds can be shown
   * at once, without what goes along; the rest follows as answers come.
   */
  preview(make: Make, hand: Holding | null = null): void {
    this.hand = hand;
    if (hand) this.world.show(this.held(this.world.shown()));
    this.wanted = make;
    this.tryOut();
  }

  /** Show what a hand holds that nothing goes along with: there is nothing to ask meanwhile. */
  hold(hand: Holding): void {
    this.hand = hand;
    this.world.show(this.held(this.world.shown()));
  }

  /** Take an edit; resolves to what came of it, or null when it was not taken. */
  commit(make: Make, how: How = {}, key: string = newKey()): Promise<Edited | null> {
    this.noMoreTrials();
    this.hand = null;
    this.world.hold();
    return new Promise((done) => {
      const answered = (edited: Edited | null) => {
        this.world.release();
        done(edited);
      };
      this.begin({ make, how, key, done: answered });
      this.keep();
    });
  }

  /** What an earlier page had let go of: each is kept once, by its name. */
  takeUp(held: Held[]): void {
    for (const { edit, key } of held) void this.commit(() => edit, {}, key);
  }

  /** Nothing that is only shown matters any more: back to what is kept. */
  callOff(): void {
    this.noMoreTrials();
    this.hand = null;
    this.world.preview(this.world.still());
  }

  /** Resolves when every edit that was let go of has been answered. */
  async settled(): Promise<void> {
    while (this.running) await this.running;
  }

  private held(shown: Layout): Layout {
    return this.hand ? this.hand(shown, this.world.still()) : shown;
  }

  private noMoreTrials(): void {
    this.wanted = null;
    this.trials.callOff();
  }

  private tryOut(): void {
    if (this.running) return;
    const still = this.world.still();
    try {
      const edit = this.wanted?.(still);
      if (edit) this.trials.want({ edit, still });
    } catch (error) {
      this.notTried(error as Error);
    }
  }

  private tried(layout: Layout, still: Layout): void {
    this.world.reached();
    // Something else was kept meanwhile, a name or an undo: it would be out of sight under this.
    if (this.world.still() !== still) this.tryOut();
    else this.showAnswer(layout);
  }

  /** While it is still held it stays with the hand, which may yet come to where it can be. */
  private notTried(error: Error): void {
    if (!this.hand) this.world.preview(this.world.still());
    this.world.trouble(error);
  }

  /** Under a hand the numbers of the whole layout can wait until it rests. */
  private showAnswer(layout: Layout): void {
    // Drawn with the move that comes next, not by itself before it.
    this.answered = this.hand && layout;
    if (this.answered) this.world.withFrame(this.showAnswered);
    else this.world.preview(sameWhereEqual(this.world.shown(), layout));
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
    this.tryOut();
  }

  /** Write down what would be lost with this page. */
  private keep(): void {
    const still = this.world.still();
    const turns = this.now ? [this.now, ...this.waiting] : this.waiting;
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
      const still = this.world.still();
      try {
        const edit = turn.make(still);
        if (!edit) return null;
        const told = await this.world.ask(still, edit);
        const answer = { ...told, layout: sameWhereEqual(this.world.shown(), told.layout) };
        this.world.reached();
        // Something else was kept meanwhile, a name or an undo: it would be lost under this answer.
        if (this.world.still() !== still) continue;
        const { soon = false } = turn.how;
        this.world.commit(answer.layout, answer.words, soon, turn.key);
        return answer;
      } catch (error) {
        const fate = this.world.fateOf(error);
        const unanswered = fate === "away" || fate === "stranger";
        if (!unanswered || turn.how.alone) return this.without(turn, error as Error, unanswered);
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
    this.world.preview(this.world.still());
    this.world.trouble(error);
    return null;
  }
}
