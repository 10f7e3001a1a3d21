/**
 * What is written down on the day, on its way: one after the other, kept over a closed tab, each
 * under a key of its own so that it is written once however often it is sent.
 */
import type { Fate } from "./world";

export interface Entry {
  kind: "tape" | "strike" | "lugs" | "spots" | "kit" | "kit-strike" | "tried";
  body: Record<string, unknown>;
}

export interface Post {
  send(entry: Entry): Promise<void>;
  fateOf(error: unknown): Fate;
  /** Resolves when it is worth trying again. */
  away(error: unknown): Promise<void>;
  reached(): void;
  /** One more is not saved yet; and one less. */
  hold(): void;
  release(): void;
  /** Something could not be written down, for good. */
  trouble(error: Error, entry: Entry): void;
}

interface Waiting {
  entry: Entry;
  done: (error: Error | null) => void;
}

export class LogBox {
  private readonly waiting: Waiting[] = [];
  private busy = false;
  private readonly listeners = new Set<() => void>();
  /** What is on its way, oldest first; another list whenever that changes. */
  private shown: readonly Entry[] = [];
  private readonly key: string;

  constructor(
    private readonly store: Pick<Storage, "getItem" | "setItem" | "removeItem">,
    session: number,
    private readonly post: Post,
  ) {
    this.key = `ringside-log-${session}`;
    for (const entry of this.left()) this.write(entry).catch(() => undefined);
  }

  subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  /** What is kept here and not there yet. */
  unsent = (): readonly Entry[] => this.shown;

  /** Resolves when it is written down; rejects when it never will be. */
  write(entry: Entry): Promise<void> {
    this.post.hold();
    return new Promise((resolve, reject) => {
      const done = (error: Error | null) => {
        this.post.release();
        if (error) reject(error);
        else resolve();
      };
      this.waiting.push({ entry, done });
      this.keep();
      void this.run();
    });
  }

  private left(): Entry[] {
    try {
      return JSON.parse(this.store.getItem(this.key) ?? "[]") as Entry[];
    } catch {
      return [];
    }
  }

  private keep(): void {
    this.shown = this.waiting.map((w) => w.entry);
    for (const listener of this.listeners) listener();
    try {
      if (!this.waiting.length) this.store.removeItem(this.key);
      else this.store.setItem(this.key, JSON.stringify(this.shown));
    } catch {
      // The store is full: it is sent all the same, and until then the page says it is not saved.
    }
  }

  private async run(): Promise<void> {
    if (this.busy) return;
    this.busy = true;
    for (let first = this.waiting[0]; first; first = this.waiting[0]) {
      const error = await this.one(first.entry);
      this.waiting.shift();
      this.keep();
      first.done(error);
    }
    this.busy = false;
  }

  private async one(entry: Entry): Promise<Error | null> {
    for (;;) {
      try {
        await this.post.send(entry);
        this.post.reached();
        return null;
      } catch (error) {
        const fate = this.post.fateOf(error);
        if (fate !== "away" && fate !== "stranger") {
          this.post.trouble(error as Error, entry);
          return error as Error;
        }
        await this.post.away(error);
      }
    }
  }
}
