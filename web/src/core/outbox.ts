/**
 * What this browser still has to send of one layout, kept over a closed tab.
 *
 * `sent` is on its way: its answer may have been lost, so it is sent again under its key before
 * anything newer is. `waiting` is the newest state after it. `held` are edits the core has not
 * answered yet. `refused` is what the server would not take; it stays until it is let go of.
 */
import type { Edit, Layout } from "../api/types";

export interface Parcel {
  doc: Layout;
  what: string;
  version: number;
  key: string;
}

export interface Held {
  edit: Edit;
  key: string;
}

export interface Refusal {
  doc: Layout;
  what: string;
  words: string;
}

type Store = Pick<Storage, "getItem" | "setItem" | "removeItem">;

export class Outbox {
  sent: Parcel | null = null;
  waiting: Parcel | null = null;
  refused: Refusal | null = null;
  /** A sentence when the browser's store would not take it. */
  trouble = "";
  private readonly written = new Map<string, string | null>();
  private left = false;

  constructor(
    private readonly store: Store,
    private readonly id: number,
    newKey: () => string,
  ) {
    const kept = this.read<{ sent?: Parcel; waiting?: Parcel } & Partial<Parcel>>("unsent");
    // What an older page kept was the one state, without a key.
    const old = kept?.doc ? { ...(kept as Parcel), key: newKey() } : null;
    this.sent = kept?.sent ?? null;
    this.waiting = kept?.waiting ?? old;
    this.refused = this.read<Refusal>("refused");
  }

  /** The page goes on to something else: from now on only what this one wrote is changed. */
  leave(): void {
    this.left = true;
  }

  get empty(): boolean {
    return !this.sent && !this.waiting;
  }

  /** Write down what is still to be sent. */
  keep(): void {
    this.write("unsent", this.empty ? null : { sent: this.sent, waiting: this.waiting });
  }

  refuse(refusal: Refusal | null): void {
    this.refused = refusal;
    this.write("refused", refusal);
  }

  /** Edits that were let go of and that the core has not answered yet. */
  held(): Held[] {
    return this.read<Held[]>("held") ?? [];
  }

  hold(edits: Held[]): void {
    this.write("held", edits.length ? edits : null);
  }

  private key(kind: string): string {
    return `ringside-${kind}-${this.id}`;
  }

  private read<T>(kind: string): T | null {
    const text = this.store.getItem(this.key(kind));
    this.written.set(kind, text);
    if (!text) return null;
    try {
      return JSON.parse(text) as T;
    } catch {
      this.store.setItem(this.key(`garbled-${kind}`), text);
      this.store.removeItem(this.key(kind));
      return null;
    }
  }

  private write(kind: string, value: unknown): void {
    const known = this.written.get(kind) ?? null;
    if (this.left && this.store.getItem(this.key(kind)) !== known) return;
    const text = value === null ? null : JSON.stringify(value);
    this.written.set(kind, text);
    try {
      if (text === null) this.store.removeItem(this.key(kind));
      else this.store.setItem(this.key(kind), text);
      this.trouble = "";
    } catch {
      this.trouble = "This browser's store is full: stay on this page until it says Saved.";
    }
  }
}
