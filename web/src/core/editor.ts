/**
 * One open layout: what is on the screen, what is saved, and what is still on its way.
 *
 * No React here. The screen subscribes; edits go in. Computing follows the hand: two
 * questions are under way at most, only the newest waits, and an old answer never
 * replaces a newer one. Saves go one after the other,
 * each against the version before it. When the server cannot be reached the newest state is
 * kept in this browser and sent later; when somebody else saved first, both states are kept
 * and the user chooses.
 */
import type { Board, Conflict, Layout, LayoutOut } from "../api/types";

export type Saved = "saved" | "saving" | "unsent" | "conflict" | "refused";

export interface FocusKey {
  anchor: string;
  mover: string;
  source: string | null;
}

export interface EditorState {
  out: LayoutOut;
  doc: Layout;
  /** The layout without what the hand is just doing: what is not a drawing reads this. */
  still: Layout;
  board: Board | null;
  focus: FocusKey | null;
  saved: Saved;
  conflict: Conflict | null;
  /** A sentence when a save was refused; it stays until something is saved. */
  trouble: string;
  /** A sentence while what is on the screen cannot be computed. */
  puzzled: string;
}

/** What the editor needs of the world, so that it can be tested without one. */
export interface Wire {
  compute(layout: Layout, focus: FocusKey | null): Promise<Board>;
  save(id: number, version: number, doc: Layout, what: string): Promise<LayoutOut>;
  step(id: number, version: number, way: "undo" | "redo"): Promise<LayoutOut>;
  /** The conflict an error carries, or null. */
  conflictOf(error: unknown): Conflict | null;
  /** Whether an error is a refusal by the server (not a lost connection). */
  isRefusal(error: unknown): boolean;
}

interface Waiting {
  doc: Layout;
  what: string;
  version: number;
}

/** Two: while one answer is drawn the next is being computed. */
const AT_ONCE = 2;
const RETRY_MS = 2500;
const SETTLE_MS = 500;

export class Editor {
  private state: EditorState;
  private readonly listeners = new Set<() => void>();
  private waiting: Waiting | null = null;
  private busySaving = false;
  /** Edits let go of that the core has not answered yet. */
  private held = 0;
  private stepping = false;
  /** Undos and redos pressed while a save or another of them was under way. */
  private wanted: ("undo" | "redo")[] = [];
  private underWay = 0;
  private asked = 0;
  private shown = 0;
  private wantsCompute = false;
  private settle: ReturnType<typeof setTimeout> | undefined;
  private retry: ReturnType<typeof setTimeout> | undefined;
  private again: ReturnType<typeof setTimeout> | undefined;

  constructor(
    out: LayoutOut,
    private readonly wire: Wire,
    private readonly store: Pick<Storage, "getItem" | "setItem" | "removeItem">,
  ) {
    const pair = out.doc.stereo_pairs[0];
    this.state = {
      out,
      doc: out.doc,
      still: out.doc,
      board: null,
      focus: pair ? { anchor: pair.left, mover: pair.right, source: null } : null,
      saved: "saved",
      conflict: null,
      trouble: "",
      puzzled: "",
    };
    this.takeUpUnsent();
    this.compute();
  }

  subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  snapshot = (): EditorState => this.state;

  /** Stop timers; a state that waits stays in the browser's store. */
  close(): void {
    clearTimeout(this.settle);
    clearTimeout(this.retry);
    clearTimeout(this.again);
    if (this.waiting) this.keep();
  }

  private set(change: Partial<EditorState>): void {
    this.state = { ...this.state, ...change };
    for (const listener of this.listeners) listener();
  }

  // --- what the screen asks ---------------------------------------------------------------

  /** Show a state while the hand still moves; nothing is saved yet. */
  preview(doc: Layout): void {
    this.set({ doc });
    this.compute();
  }

  /** Take a state: show it, save it. */
  commit(doc: Layout, what: string): void {
    this.flushSettling();
    this.set({ still: doc });
    this.preview(doc);
    this.queue(doc, what);
  }

  /** Take a state that may be followed at once by the next of its kind (keys held down). */
  commitSoon(doc: Layout, what: string): void {
    this.set({ still: doc });
    this.preview(doc);
    this.waiting = { doc, what, version: this.state.out.version };
    this.keep();
    this.set({ saved: this.state.saved === "conflict" ? "conflict" : "saving" });
    clearTimeout(this.settle);
    this.settle = setTimeout(() => void this.send(), SETTLE_MS);
  }

  /** An edit was let go of and is on its way to the core: not everything is saved now. */
  hold(): void {
    this.held++;
    if (this.state.saved === "saved") this.set({ saved: "saving" });
  }

  /** It has come back; what came of it was committed before. */
  release(): void {
    this.held--;
    const idle = !this.held && !this.waiting && !this.busySaving;
    if (idle && this.state.saved === "saving") this.set({ saved: "saved" });
  }

  /** Whether something would be lost if the page went now. */
  get unsafe(): boolean {
    return this.held > 0 || this.state.saved === "conflict";
  }

  private get quiet(): Saved {
    return this.held ? "saving" : "saved";
  }

  /** Open a pair. */
  open(focus: FocusKey | null): void {
    this.set({ focus });
    this.compute();
  }

  /** Undo or redo; pressed while a save is under way, it follows as soon as that has landed. */
  async step(way: "undo" | "redo"): Promise<void> {
    this.flushSettling();
    if (this.waiting && !this.busySaving) void this.send();
    if (this.waiting || this.busySaving || this.stepping) {
      if (this.state.saved !== "conflict") this.wanted.push(way);
      return;
    }
    this.stepping = true;
    try {
      this.take(await this.wire.step(this.state.out.id, this.state.out.version, way));
    } catch (error) {
      this.failed(error, null);
    }
    this.stepping = false;
    await this.stepOn();
  }

  private async stepOn(): Promise<void> {
    const way = this.wanted.shift();
    if (way) await this.step(way);
  }

  /** After a conflict: theirs, mine on top, or (once the copy is made) theirs again. */
  resolve(choice: "theirs" | "mine"): void {
    const conflict = this.state.conflict;
    if (!conflict) return;
    const mine = this.state.still;
    this.take(conflict.current);
    if (choice === "mine") this.commit(mine, "kept over another change");
  }

  /** A newer state from elsewhere (a rename, a reload). */
  take(out: LayoutOut): void {
    this.waiting = null;
    this.forget();
    this.set({ out, doc: out.doc, still: out.doc, saved: this.quiet, conflict: null, trouble: "" });
    this.compute();
  }

  // --- computing --------------------------------------------------------------------------

  private compute(): void {
    this.wantsCompute = true;
    while (this.wantsCompute && this.underWay < AT_ONCE) {
      this.wantsCompute = false;
      void this.ask(++this.asked);
    }
  }

  /** One question; an answer that an earlier-asked, later-come one would undo is dropped. */
  private async ask(number: number): Promise<void> {
    const { doc } = this.state;
    this.underWay++;
    try {
      const board = await this.wire.compute(doc, this.validFocus(doc));
      if (number > this.shown) {
        this.shown = number;
        this.set({ board, puzzled: "" });
      }
    } catch (error) {
      if (this.wire.isRefusal(error)) this.set({ puzzled: (error as Error).message });
      else this.askLater();
    }
    this.underWay--;
    if (this.wantsCompute) this.compute();
  }

  /** The server is away: what is shown is old, so ask again until it answers. */
  private askLater(): void {
    clearTimeout(this.again);
    this.again = setTimeout(() => this.compute(), RETRY_MS);
  }

  private validFocus(doc: Layout): FocusKey | null {
    const focus = this.state.focus;
    const ids = new Set(doc.mics.map((m) => m.id));
    return focus && ids.has(focus.anchor) && ids.has(focus.mover) ? focus : null;
  }

  // --- saving -----------------------------------------------------------------------------

  private get key(): string {
    return `ringside-unsent-${this.state.out.id}`;
  }

  private keep(): void {
    try {
      this.store.setItem(this.key, JSON.stringify(this.waiting));
    } catch {
      this.set({ trouble: "This browser's store is full: stay on this page until it says Saved." });
    }
  }

  private forget(): void {
    this.store.removeItem(this.key);
  }

  private takeUpUnsent(): void {
    const text = this.store.getItem(this.key);
    if (!text) return;
    try {
      this.waiting = JSON.parse(text) as Waiting;
    } catch {
      this.forget();
      return;
    }
    if (!this.waiting) return;
    const { doc } = this.waiting;
    this.state = { ...this.state, doc, still: doc, saved: "saving" };
    void this.send();
  }

  private queue(doc: Layout, what: string): void {
    this.waiting = { doc, what, version: this.state.out.version };
    this.keep();
    if (this.state.saved !== "conflict") this.set({ saved: "saving" });
    void this.send();
  }

  private flushSettling(): void {
    if (this.settle === undefined) return;
    clearTimeout(this.settle);
    this.settle = undefined;
    if (this.waiting) void this.send();
  }

  private async send(): Promise<void> {
    this.settle = undefined;
    clearTimeout(this.retry);
    if (this.busySaving || !this.waiting || this.state.saved === "conflict") return;
    this.busySaving = true;
    const mine = this.waiting;
    try {
      const out = await this.wire.save(this.state.out.id, mine.version, mine.doc, mine.what);
      this.busySaving = false;
      this.landed(out, mine);
    } catch (error) {
      this.busySaving = false;
      this.failed(error, mine);
    }
  }

  private landed(out: LayoutOut, mine: Waiting): void {
    if (this.waiting === mine) {
      this.waiting = null;
      this.forget();
      this.set({ out, saved: this.quiet, trouble: "" });
      void this.stepOn();
      return;
    }
    // More came while it was under way: it goes against the version just made.
    if (this.waiting) this.waiting = { ...this.waiting, version: out.version };
    this.keep();
    this.set({ out });
    if (this.settle === undefined) void this.send();
  }

  private failed(error: unknown, mine: Waiting | null): void {
    this.wanted = []; // what they would have undone is still on the screen, unsaved
    const conflict = this.wire.conflictOf(error);
    if (conflict) {
      this.set({ saved: "conflict", conflict });
      return;
    }
    if (this.wire.isRefusal(error)) {
      if (mine && this.waiting === mine) this.waiting = null;
      this.forget();
      this.set({ saved: mine ? "refused" : this.state.saved, trouble: (error as Error).message });
      return;
    }
    this.set({ saved: "unsent" });
    this.retry = setTimeout(() => void this.send(), RETRY_MS);
  }
}
