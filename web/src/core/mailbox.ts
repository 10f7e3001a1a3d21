/**
 * Where a worker lays answers for the page to take as it draws.
 *
 * A message waits until the page has nothing better to do, and a page that draws under a hand has
 * always something better to do: on a slow machine answers came forty milliseconds late. Memory of
 * both is looked into with each frame instead. It is there only where the page is isolated.
 */

/** More than questions are ever under way. */
const SLOTS = 8;
const ROOM = 1 << 15;
/** Before the bytes of a slot: whether something lies there, of which question, how long it is. */
const HEAD = 3;
const FREE = 0;
const FULL = 1;
/** After all slots: whether the page was called and has not heard it yet. */
const BELL = SLOTS * HEAD;
const BEFORE = (BELL + 1) * 4;
const EVERY = [...Array(SLOTS).keys()];
const utf8 = new TextDecoder();

export class Mailbox {
  private readonly heads: Int32Array;

  constructor(readonly memory: SharedArrayBuffer) {
    this.heads = new Int32Array(memory, 0, BELL + 1);
  }

  /** A new one; null where a page shares no memory. */
  static made(): Mailbox | null {
    if (!globalThis.crossOriginIsolated) return null;
    return new Mailbox(new SharedArrayBuffer(BEFORE + SLOTS * ROOM));
  }

  /** Lay an answer in; false where it has no room. */
  put(number: number, answer: Uint8Array): boolean {
    const slot = EVERY.find((n) => this.state(n) === FREE);
    if (slot === undefined || answer.length > ROOM) return false;
    this.bytes(slot).set(answer);
    this.heads[slot * HEAD + 1] = number;
    this.heads[slot * HEAD + 2] = answer.length;
    Atomics.store(this.heads, slot * HEAD, FULL);
    return true;
  }

  /** All that lies in it, by the numbers of the questions, the newest read. */
  take(): { numbers: number[]; newest: unknown } | null {
    const full = EVERY.filter((n) => this.state(n) === FULL);
    if (!full.length) return null;
    const of = (slot: number) => this.heads[slot * HEAD + 1] as number;
    full.sort((a, b) => of(b) - of(a));
    const [first = 0] = full;
    const length = this.heads[first * HEAD + 2] as number;
    const newest = JSON.parse(utf8.decode(this.bytes(first).slice(0, length)));
    const numbers = full.map(of);
    for (const slot of full) Atomics.store(this.heads, slot * HEAD, FREE);
    return { numbers, newest };
  }

  /** Whether the page must be called: not while a call is on its way. */
  call(): boolean {
    return Atomics.exchange(this.heads, BELL, 1) === 0;
  }

  /** It was. */
  heard(): void {
    Atomics.store(this.heads, BELL, 0);
  }

  private state(slot: number): number {
    return Atomics.load(this.heads, slot * HEAD);
  }

  private bytes(slot: number): Uint8Array {
    return new Uint8Array(this.memory, BEFORE + slot * ROOM, ROOM);
  }
}
