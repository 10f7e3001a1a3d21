/**
 * A line to the server that stays open while a hand asks. A question over it costs browser and
 * server together half of what a request costs. How it is spoken: docs/formats/hand.md.
 */

export interface Reply {
  status: number;
  bytes: Uint8Array<ArrayBuffer>;
}

const HEAD = 6;
/** Nobody asks any more: it is put down before the server does so. */
const UNUSED_MS = 45_000;
/** Nothing comes: a network that changed under it says nothing. */
const LATE_MS = 8_000;
/** It could not be opened: something on the way takes no such lines. */
const REFUSED_MS = 60_000;
/** It was open, and was closed: the server was started anew, or somebody signed out. */
const CLOSED_MS = 1_000;

interface Waiting {
  since: number;
  done: (reply: Reply | null) => void;
}

export class OpenLine {
  private socket: WebSocket | null = null;
  private readonly waiting = new Map<number, Waiting>();
  private number = 0;
  private used = 0;
  private notBefore = 0;
  private watch: ReturnType<typeof setInterval> | undefined;

  constructor(private readonly address: string) {}

  /** Open it, if it is not; until it is, questions go as requests. */
  begin(): void {
    this.used = performance.now();
    if (this.socket || this.used < this.notBefore) return;
    let socket: WebSocket;
    try {
      socket = new WebSocket(this.address);
    } catch {
      this.notBefore = this.used + REFUSED_MS;
      return;
    }
    this.socket = socket;
    let opened = false;
    socket.binaryType = "arraybuffer";
    socket.onopen = () => {
      opened = true;
    };
    socket.onmessage = ({ data }: MessageEvent<ArrayBuffer>) => this.heard(data);
    socket.onclose = () => {
      if (this.socket === socket) this.end(opened ? CLOSED_MS : REFUSED_MS);
    };
    this.watch = setInterval(() => this.look(), 500);
  }

  /** What is answered; null where it has to be asked otherwise. */
  ask(path: string, text: string): Promise<Reply | null> {
    this.begin();
    const { socket } = this;
    if (!socket || socket.readyState !== WebSocket.OPEN) return Promise.resolve(null);
    this.number = (this.number % 999_999_999) + 1;
    socket.send(`${this.number} ${path}\n${text}`);
    return new Promise((done) => this.waiting.set(this.number, { since: this.used, done }));
  }

  private heard(data: ArrayBuffer): void {
    const head = new DataView(data);
    const number = head.getUint32(0, true);
    this.waiting
      .get(number)
      ?.done({ status: head.getUint16(4, true), bytes: new Uint8Array(data, HEAD) });
    this.waiting.delete(number);
  }

  private look(): void {
    const now = performance.now();
    const [oldest] = this.waiting.values();
    if (oldest && now - oldest.since > LATE_MS) this.end(CLOSED_MS);
    else if (now - this.used > UNUSED_MS) this.end(0);
  }

  private end(rest_ms: number): void {
    clearInterval(this.watch);
    this.socket?.close();
    this.socket = null;
    this.notBefore = performance.now() + rest_ms;
    const left = [...this.waiting.values()];
    this.waiting.clear();
    for (const { done } of left) done(null);
  }
}
