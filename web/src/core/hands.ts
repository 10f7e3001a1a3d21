/**
 * Edits on their way to the core and back: one at a time, in order.
 *
 * While something is dragged only the newest place waits; what is let go of is never dropped.
 * Each edit is made from the layout as it is when its turn comes, so keys held down add up. An
 * edit is made on what is kept, never on what is only shown.
 */
import type { Edit, Edited, Layout } from "../api/types";

export type Make = (kept: Layout) => Edit | null;

export interface How {
  /** It may be followed at once by the next of its kind: keys held down. */
  soon?: boolean;
  /** What to keep of it while the server is away: the edit's own values, without its rules. */
  alone?: (kept: Layout) => Layout;
  /** What it is called then. */
  name?: string;
}

interface World {
  /** The layout without what the hand is just doing. */
  still(): Layout;
  ask(layout: Layout, edit: Edit): Promise<Edited>;
  preview(layout: Layout): void;
  commit(layout: Layout, what: string, soon: boolean): void;
  /** An edit was let go of; and it has been answered. */
  hold(): void;
  release(): void;
  trouble(error: Error): void;
  /** Whether an error is a refusal by the server, not a lost connection. */
  isRefusal(error: unknown): boolean;
}

interface Turn {
  make: Make;
  shown: boolean;
  how: How;
  done: (edited: Edited | null) => void;
}

export class Hands {
  private waiting: Turn[] = [];
  private running: Promise<void> | null = null;
  /** Counts what was called off, so that a late answer is known for one. */
  private round = 0;

  constructor(private readonly world: World) {}

  /** Show what an edit would do while the hand still moves. */
  preview(make: Make): void {
    this.waiting = this.waiting.filter((w) => !w.shown);
    this.begin({ make, shown: true, how: {}, done: () => undefined });
  }

  /** Take an edit; resolves to what came of it, or null when it was not taken. */
  commit(make: Make, how: How = {}): Promise<Edited | null> {
    this.waiting = this.waiting.filter((w) => !w.shown);
    this.world.hold();
    return new Promise((done) => {
      const answered = (edited: Edited | null) => {
        this.world.release();
        done(edited);
      };
      this.begin({ make, shown: false, how, done: answered });
    });
  }

  /** Nothing that is only shown matters any more: back to what is kept. */
  callOff(): void {
    this.round++;
    this.waiting = this.waiting.filter((w) => !w.shown);
    this.world.preview(this.world.still());
  }

  /** Resolves when every edit that was let go of has been answered. */
  async settled(): Promise<void> {
    while (this.running) await this.running;
  }

  private begin(turn: Turn): void {
    this.waiting.push(turn);
    this.running ??= this.run();
  }

  private async run(): Promise<void> {
    for (let turn = this.waiting.shift(); turn; turn = this.waiting.shift()) await this.one(turn);
    // At once: an edit that comes between the last turn and this line would wait for ever.
    this.running = null;
  }

  private async one(turn: Turn): Promise<void> {
    const { round } = this;
    const still = this.world.still();
    try {
      const edit = turn.make(still);
      if (!edit) return turn.done(null);
      const answer = await this.world.ask(still, edit);
      // Something else was kept meanwhile, a name or an undo: it would be lost under this answer.
      if (!turn.shown && this.world.still() !== still) return await this.one(turn);
      const overtaken = this.round !== round || this.waiting.some((w) => !w.shown);
      if (!turn.shown) this.world.commit(answer.layout, answer.words, turn.how.soon ?? false);
      else if (!overtaken) this.world.preview(answer.layout);
      turn.done(answer);
    } catch (error) {
      turn.done(this.without(turn, error as Error));
    }
  }

  /** No answer: what can be kept without one is; else back to what holds, nothing half done. */
  private without(turn: Turn, error: Error): Edited | null {
    const { alone, name = "Changed", soon = false } = turn.how;
    if (alone && !this.world.isRefusal(error)) {
      const layout = alone(this.world.still());
      this.world.commit(layout, name, soon);
      return { layout, words: name, moved: [], made: null };
    }
    this.world.preview(this.world.still());
    this.world.trouble(error);
    return null;
  }
}
