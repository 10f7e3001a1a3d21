/** The questions of a hand that moves something, asked beside the page where the browser can. */
import { csrfToken } from "../api/client";
import type { Layout } from "../api/types";
import type { Address, Ask, Known, Look, Told } from "./asker.worker";
import { frames } from "./frames";
import { newKey } from "./key";
import { Mailbox } from "./mailbox";

const lineFrom = ({ protocol, host }: Location): string =>
  `${protocol === "https:" ? "wss" : "ws"}://${host}/api/hand`;

interface Open {
  path: string;
  boxed: boolean;
  done: (answer: unknown) => void;
}

class Asker {
  private readonly worker = new Worker(new URL("./asker.worker.ts", import.meta.url), {
    type: "module",
  });
  private readonly box = Mailbox.made();
  private readonly open = new Map<number, Open>();
  private number = 0;
  /** It could not be started, or has died. */
  dead = false;
  private known: Layout | null = null;
  private name = "";
  /** Looked up once for a hand: to read a cookie stops the page until the browser answers. */
  private token = "";
  /** Answers that came by message, and wait to be drawn. */
  private came: Told[] = [];
  private drawn = false;

  constructor() {
    if (this.box) this.worker.postMessage(this.box.memory);
    if ("WebSocket" in window) {
      const address: Address = { line: lineFrom(location) };
      this.worker.postMessage(address);
    }
    this.worker.onmessage = ({ data }: MessageEvent<Told | Look>) => {
      if (data === "look") this.box?.heard();
      // Words are much to draw, and each of them counts: they have a frame of their own.
      else if (this.isRead(data)) return frames.turn(() => this.close(data.number, data.answer));
      else this.came.push(data);
      this.look();
    };
    document.addEventListener("visibilitychange", () => this.look());
    this.worker.onerror = () => {
      this.dead = true;
      for (const number of [...this.open.keys()]) this.close(number, null);
    };
  }

  /** Whatever is asked next is about this layout. */
  know(layout: Layout): void {
    if (layout === this.known) return;
    [this.known, this.name, this.token] = [layout, newKey(), csrfToken()];
    const known: Known = { name: this.name, layout: JSON.stringify(layout) };
    this.worker.postMessage(known);
  }

  /** `boxed` where its answer may be overtaken by the next of its kind. */
  ask(path: string, layout: Layout, more: object, boxed: boolean): Promise<unknown> {
    this.know(layout);
    const { name, token } = this;
    const rest = JSON.stringify(more).slice(1);
    const ask: Ask = { number: ++this.number, path, token, name, rest, boxed };
    return new Promise((done) => {
      this.open.set(ask.number, { path, boxed, done });
      this.worker.postMessage(ask);
      // A hand that moves draws a frame: what has come by then goes with it.
      frames.draw(this.nextFrame);
    });
  }

  /** Something was amiss: the next question looks everything up again. */
  forget(): void {
    this.known = null;
    this.token = "";
  }

  private isRead({ number, answer }: Told): boolean {
    return answer !== null && this.open.get(number)?.boxed === false;
  }

  /**
   * One answer a frame: the first is drawn as it comes, while the page waits for its next frame. Of
   * more that come before it the newest goes first with it, and the others are overtaken.
   */
  private look(): void {
    // A page that is out of sight has no next frame, and edits let go of wait for their turn.
    if (this.drawn && !document.hidden) return;
    const lain = this.box?.take();
    const came = this.came.splice(0).reverse();
    if (!lain && !came.length) return;
    this.drawn = true;
    frames.draw(this.nextFrame);
    // Those that are overtaken are not even read: whoever asked drops them. One of another kind
    // is not overtaken, and asked once more.
    const kind = (number = 0) => this.open.get(number)?.path;
    const newest = kind(lain?.numbers[0]);
    for (const number of lain?.numbers ?? [])
      this.close(number, kind(number) === newest ? lain?.newest : null);
    for (const { number, answer } of came) this.close(number, answer);
  }

  private nextFrame = (): void => {
    this.drawn = false;
    this.look();
  };

  private close(number: number, answer: unknown): void {
    const asked = this.open.get(number);
    this.open.delete(number);
    asked?.done(answer);
  }
}

/** None where the browser has none, or will not start one. */
function made(): Asker | null {
  try {
    return new Asker();
  } catch {
    return null;
  }
}

let asker: Asker | null | undefined;

/** Told of a layout before a hand takes hold of something in it: there is enough to do then. */
export function ready(layout: Layout): void {
  begun()?.know(layout);
}

function begun(): Asker | null {
  if (asker === undefined) asker = made();
  return asker?.dead ? null : asker;
}

/** What is asked of a layout something of which is under the hand, beside that layout. */
export interface Question {
  path: string;
  /** As it was before the hand took hold. */
  still: Layout;
  more: object;
  /** Each of its answers counts: none is overtaken. */
  every?: boolean;
}

/** The answer to a question of a hand; by `plainly`, which knows each fault, where there is none. */
export async function beside<A>(question: Question, plainly: () => Promise<A>): Promise<A> {
  const { path, still, more, every = false } = question;
  const asker = begun();
  const answer = asker ? await asker.ask(path, still, more, !every) : null;
  if (answer !== null) return answer as A;
  asker?.forget();
  return plainly();
}
