/**
 * One open layout: what is on the screen, what is saved, and what is still on its way.
 *
 * No React here. The screen subscribes; edits go in. Computing follows the hand: two
 * questions are under way at most, only the newest waits, and an old answer never
 * replaces a newer one. Saves go one after the other, each against the version before it and
 * under a key of its own: one whose answer was lost is sent again under the same key and done
 * once. Whatever the server does not answer for is kept in this browser and sent later; when
 * somebody else saved first, both states are kept and the user chooses; what is refused stays
 * to be mended, downloaded or let go of.
 */
import type { Board, Conflict, Follows, Layout, LayoutOut, Mic } from "../api/types";
import { Deadline } from "./deadline";
import { withMics } from "./edits";
import { type FocusKey, Following } from "./following";
import { newKey } from "./key";
import { Latest } from "./latest";
import { type Held, Outbox, type Parcel, type Refusal } from "./outbox";
import { Patience } from "./patience";
import { sameParts, sameWhereEqual } from "./same";
import { Trail } from "./trail";
import type { Way, Wire } from "./world";

export type Saved = "saved" | "saving" | "unsent" | "stranger" | "conflict" | "refused";

export interface EditorState {
  out: LayoutOut;
  doc: Layout;
  /** The layout without what the hand is just doing: what is not a drawing reads this. */
  still: Layout;
  board: Board | null;
  /** The last whole board, without what only follows the hand. */
  whole: Board | null;
  /** A mic that the drawing moves by itself: drawings show `still` and `whole` meanwhile. */
  underHand: string | null;
  /** The numbers are those of where the hand was some time ago. */
  behind: boolean;
  focus: FocusKey | null;
  saved: Saved;
  conflict: Conflict | null;
  /** What the server would not take: it is kept until it is let go of. */
  refusal: Refusal | null;
  /** A sentence about saving; it stays until something is saved. */
  trouble: string;
  /** A sentence while what is on the screen cannot be computed. */
  puzzled: string;
}

/** Two: while one answer is drawn the next is being computed. */
const AT_ONCE = 2;
const SETTLE_MS = 500;
/** A hand that has not moved for so long rests: the whole board follows. */
const REST_MS = 200;
const GONE =
  "This layout is not there any more: it was deleted, or its studio is no longer yours. What you did last is kept in this browser";

/** What an older program left in this browser is sent as it is, and shown as the server has it. */
const sameVersion = (kept: Parcel, out: LayoutOut) => kept.doc.version === out.doc.version;

export class Editor {
  private state: EditorState;
  private readonly listeners = new Set<() => void>();
  private readonly outbox: Outbox;
  private readonly patience = new Patience();
  private busySaving = false;
  /** Why nothing goes through at the moment. */
  private outage: "unsent" | "stranger" | null = null;
  /** Edits let go of that the core has not answered yet. */
  private held = 0;
  private stepping: { way: Way; key: string } | null = null;
  /** Undos and redos pressed while a save or another of them was under way. */
  private wanted: Way[] = [];
  private readonly computing = new Latest<null, { asked: Layout; board: Board }>(
    async () => {
      const asked = this.state.doc;
      return { asked, board: await this.wire.compute(asked, this.validFocus(asked)) };
    },
    ({ asked, board }) => this.boardIs(sameWhereEqual(this.state.whole, board), asked),
    (error) => this.puzzled(error),
    AT_ONCE,
  );
  /** What follows a mic under the hand. */
  readonly following = new Following({
    ask: (move) => this.wire.follow(move),
    show: (told, mic) => this.followed(told, mic),
    read: (words, mic) => this.read(words, mic),
    failed: (error) => this.puzzled(error),
    late: (behind) => behind !== this.state.behind && this.set({ behind }),
  });
  private readonly trail = new Trail();
  private readonly rest = new Deadline();
  private settle: ReturnType<typeof setTimeout> | undefined;
  private closed = false;
  private readonly leftOver: Held[];

  constructor(
    out: LayoutOut,
    private readonly wire: Wire,
    store: Pick<Storage, "getItem" | "setItem" | "removeItem">,
  ) {
    this.outbox = new Outbox(store, out.id, newKey);
    this.leftOver = this.outbox.held();
    const pair = out.doc.stereo_pairs[0];
    const kept = this.outbox.waiting ?? this.outbox.sent;
    const doc = kept && sameVersion(kept, out) ? kept.doc : out.doc;
    this.state = {
      out,
      doc,
      still: doc,
      board: null,
      whole: null,
      underHand: null,
      behind: false,
      focus: pair ? { anchor: pair.left, mover: pair.right, source: null } : null,
      saved: "saved",
      conflict: null,
      refusal: this.outbox.refused,
      trouble: "",
      puzzled: "",
    };
    this.tell({});
    void this.send();
    this.compute();
  }

  subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  snapshot = (): EditorState => this.state;

  /** Stop timers; a state that waits stays in the browser's store. */
  close(): void {
    this.closed = true;
    clearTimeout(this.settle);
    this.rest.clear();
    this.patience.stop();
    this.outbox.keep();
    this.outbox.leave();
  }

  private set(change: Partial<EditorState>): void {
    this.state = { ...this.state, ...change };
    for (const listener of this.listeners) listener();
  }

  /** Set, with the word for how far saving is. */
  private tell(change: Partial<EditorState>): void {
    const next = { ...this.state, ...change };
    this.set({ ...change, saved: this.word(next), trouble: this.outbox.trouble || next.trouble });
  }

  private word(state: EditorState): Saved {
    if (state.conflict) return "conflict";
    const pending = this.held > 0 || !this.outbox.empty || this.stepping !== null;
    if (pending) return this.outage ?? "saving";
    return state.refusal ? "refused" : "saved";
  }

  // --- what the screen asks ---------------------------------------------------------------

  /** Show a state while the hand still moves; nothing is saved yet. */
  preview(doc: Layout): void {
    this.endHand();
    this.set({ doc, underHand: null });
    this.compute();
  }

  /** What a hand holds, where it is at this moment. */
  show(doc: Layout): void {
    this.set({ doc });
  }

  /** What goes along with it as well: the whole board follows when the hand rests. */
  showWhole(doc: Layout): void {
    this.set({ doc });
    this.whenAtRest(() => this.compute());
  }

  /** A mic where the hand has it: `turned` where its aim changes, which is drawn anew. */
  move(mic: Mic, turned = false): void {
    const { still, underHand } = this.state;
    const doc = withMics(still, [mic]);
    if (turned) this.set({ doc });
    else if (underHand !== mic.id) this.set({ underHand: mic.id });
    this.following.move({ still, mic, focus: this.validFocus(still) });
    this.whenAtRest(() => {
      this.set({ doc });
      this.compute();
    });
  }

  private whenAtRest(then: () => void): void {
    this.rest.put(REST_MS, then);
  }

  /** The hand let go of the mic, there. */
  drop(mic: Mic): void {
    this.endHand();
    this.set({ doc: withMics(this.state.still, [mic]), underHand: null });
  }

  /** No mic is under the hand any more. */
  private endHand(): void {
    this.rest.clear();
    this.following.stop();
  }

  private followed(told: Follows, mic: Mic): void {
    const { still, doc, board, underHand } = this.state;
    this.set({
      doc: underHand ? withMics(still, [mic]) : doc,
      board: board && this.trail.show(told, mic, board),
      puzzled: "",
    });
  }

  private read(words: Follows, mic: Mic): void {
    const { board } = this.state;
    if (board) this.set({ board: this.trail.read(words, mic, board, this.following.mic) });
  }

  private boardIs(whole: Board, asked: Layout): void {
    const board = this.trail.over(whole, asked, this.state.doc, this.following.mic);
    this.set({ board, whole, puzzled: "" });
    if (!this.following.mic && asked === this.state.doc) this.trail.forget();
  }

  /** Take a state: show it, save it; `key` when it was named before. */
  commit(doc: Layout, what: string, key: string = newKey()): void {
    this.flushSettling();
    this.put(doc, what, key);
    void this.send();
  }

  /** Take a state that may be followed at once by the next of its kind (keys held down). */
  commitSoon(doc: Layout, what: string, key: string = newKey()): void {
    this.put(doc, what, key);
    clearTimeout(this.settle);
    this.settle = setTimeout(() => {
      this.settle = undefined;
      void this.send();
    }, SETTLE_MS);
  }

  private put(doc: Layout, what: string, key: string): void {
    this.set({ still: doc });
    this.preview(doc);
    this.outbox.waiting = { doc, what, version: this.state.out.version, key };
    this.outbox.keep();
    this.tell({});
  }

  /** An edit was let go of and is on its way to the core: not everything is saved now. */
  hold(): void {
    this.held++;
    this.tell({});
  }

  /** It has come back; what came of it was committed before. */
  release(): void {
    this.held--;
    this.tell({});
  }

  /** Edits that wait for the core, kept over a closed tab; and those an earlier page left. */
  keepHeld(edits: Held[]): void {
    this.outbox.hold(edits);
  }

  /** Once: whoever asks takes them over. */
  takeLeftOver(): Held[] {
    return this.leftOver.splice(0);
  }

  /** The server could not be reached, or does not know who asks; resolves at the next try. */
  async away(error: unknown): Promise<void> {
    this.outage = this.wire.fateOf(error) === "stranger" ? "stranger" : "unsent";
    this.tell({});
    // A page that was left tries no more: what waits is in the store, for the next one.
    await (this.closed ? new Promise(() => undefined) : this.patience.next());
  }

  /** It answered again. */
  reached(): void {
    this.patience.reached();
    if (!this.outage) return;
    this.outage = null;
    this.tell({});
  }

  /** The network is back, or somebody signed in: whatever waits goes now. */
  tryNow(): void {
    this.patience.now();
    this.compute();
  }

  /** Whether something would be lost if the page went now. */
  get unsafe(): boolean {
    return this.held > 0 || this.stepping !== null || this.state.saved === "conflict";
  }

  /** Open a pair; the one that is open stays as it is. */
  open(focus: FocusKey | null): void {
    if (sameParts(this.state.focus, focus)) return;
    this.set({ focus });
    this.compute();
  }

  /** Undo or redo; pressed while a save is under way, it follows as soon as that has landed. */
  async step(way: Way): Promise<void> {
    this.flushSettling();
    // What was refused was the last thing done, and was never saved: undoing it lets it go.
    if (this.state.refusal && this.outbox.empty) return way === "undo" ? this.letGo() : undefined;
    if (!this.outbox.empty && !this.busySaving) void this.send();
    if (!this.outbox.empty || this.stepping) {
      if (!this.state.conflict) this.wanted.push(way);
      return;
    }
    this.stepping = { way, key: newKey() };
    this.tell({});
    await this.goStep(this.stepping);
    await this.stepOn();
  }

  /** One step, sent under one key until it is answered. */
  private async goStep({ way, key }: { way: Way; key: string }): Promise<void> {
    const { id, version } = this.state.out;
    for (;;) {
      try {
        const out = await this.wire.step(id, version, way, key);
        this.reached();
        this.stepping = null;
        return this.stepped(out);
      } catch (error) {
        if (await this.stepFailed(error)) return;
      }
    }
  }

  /** What a step led to; an edit made while it was on its way goes on top, it is not lost. */
  private stepped(out: LayoutOut): void {
    const { waiting } = this.outbox;
    if (!waiting) return void this.take(out);
    this.outbox.waiting = { ...waiting, version: out.version };
    this.outbox.keep();
    this.tell({ out });
    void this.send();
  }

  /** Whether a step is given up; else it is tried again. */
  private async stepFailed(error: unknown): Promise<boolean> {
    const fate = this.wire.fateOf(error);
    if (fate === "away" || fate === "stranger") {
      await this.away(error);
      return false;
    }
    this.stepping = null;
    this.wanted = [];
    if (fate !== "conflict") void this.send();
    if (fate === "conflict") this.tell({ conflict: this.wire.conflictOf(error) });
    else this.tell({ trouble: (error as Error).message });
    return true;
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

  /** What was refused, once more: the server may take it now. */
  again(): void {
    const refusal = this.state.refusal;
    if (refusal) this.commit(refusal.doc, refusal.what);
  }

  /** Let go of what was refused: back to what is saved. */
  letGo(): void {
    this.take(this.state.out);
  }

  /** A newer state from elsewhere (a rename, a reload). */
  take(out: LayoutOut): void {
    this.outbox.sent = this.outbox.waiting = null;
    this.outbox.keep();
    this.outbox.refuse(null);
    this.endHand();
    const doc = sameWhereEqual(this.state.still, out.doc);
    const fresh = { out: { ...out, doc }, doc, still: doc, underHand: null };
    this.tell({ ...fresh, conflict: null, refusal: null, trouble: "" });
    this.compute();
  }

  // --- computing --------------------------------------------------------------------------

  private compute(): void {
    this.computing.want(null);
  }

  private puzzled(error: Error): void {
    if (this.wire.fateOf(error) === "refused") this.set({ puzzled: error.message });
    // The server is away: what is shown is old, so ask again until it answers.
    else void this.patience.next().then(() => this.compute());
  }

  private validFocus(doc: Layout): FocusKey | null {
    const focus = this.state.focus;
    const ids = new Set(doc.mics.map((m) => m.id));
    return focus && ids.has(focus.anchor) && ids.has(focus.mover) ? focus : null;
  }

  // --- saving -----------------------------------------------------------------------------

  private flushSettling(): void {
    if (this.settle === undefined) return;
    clearTimeout(this.settle);
    this.settle = undefined;
    void this.send();
  }

  /** Send what is to be sent, one after the other, until nothing is or somebody must choose. */
  private async send(): Promise<void> {
    if (this.busySaving) return;
    this.busySaving = true;
    while (!this.outbox.empty && !this.state.conflict && !this.stepping) {
      if (!this.outbox.sent && this.settle !== undefined) break;
      await this.sendOne();
    }
    this.busySaving = false;
    if (this.outbox.empty && !this.stepping) await this.stepOn();
  }

  private async sendOne(): Promise<void> {
    this.outbox.sent ??= this.outbox.waiting as Parcel;
    if (this.outbox.waiting === this.outbox.sent) this.outbox.waiting = null;
    this.outbox.keep();
    const mine = this.outbox.sent;
    try {
      const out = await this.wire.save(this.state.out.id, mine);
      this.reached();
      this.landed(out, mine);
    } catch (error) {
      await this.failed(error, mine);
    }
  }

  private landed(out: LayoutOut, mine: Parcel): void {
    const { waiting } = this.outbox;
    const newest = out.head_key === mine.key;
    // Somebody went on from mine meanwhile; or the program was renewed under it.
    if (!waiting && (!newest || !sameVersion(mine, out))) return void this.take(out);
    this.outbox.sent = null;
    // What came meanwhile goes against the version just made. Where somebody went on from that,
    // the server says so, and the user chooses.
    const version = newest ? out.version : mine.version + 1;
    if (waiting) this.outbox.waiting = { ...waiting, version };
    this.outbox.keep();
    this.outbox.refuse(null);
    this.tell({ out: newest ? out : this.state.out, refusal: null, trouble: "" });
  }

  private async failed(error: unknown, mine: Parcel): Promise<void> {
    const fate = this.wire.fateOf(error);
    if (fate !== "away" && fate !== "stranger") this.reached();
    if (fate === "conflict") {
      this.wanted = []; // what they would have undone is still on the screen, unsaved
      this.outbox.waiting ??= mine;
      this.outbox.sent = null;
      this.outbox.keep();
      this.tell({ conflict: this.wire.conflictOf(error) });
    } else if (fate === "refused" || fate === "gone") {
      this.refuse(mine, fate === "gone" ? GONE : (error as Error).message);
    } else await this.away(error);
  }

  /** The server named what is wrong with a state: it stays here to be mended. */
  private refuse(mine: Parcel, words: string): void {
    this.wanted = [];
    this.outbox.sent = null;
    const { doc, what } = mine;
    const refusal = { doc, what, words };
    this.outbox.refuse(refusal);
    this.outbox.keep();
    this.tell({ refusal, trouble: "" });
  }
}
