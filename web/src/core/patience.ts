/** When to try again after the server could not be reached: soon, then less and less often. */
const FIRST_MS = 2500;
const LONGEST_MS = 30_000;

export class Patience {
  private wait = FIRST_MS;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private waiting: (() => void)[] = [];

  /** Resolves when the next try is due. */
  next(): Promise<void> {
    const due = new Promise<void>((go) => {
      this.waiting.push(go);
    });
    if (this.timer === undefined) {
      this.timer = setTimeout(() => this.go(), this.wait);
      this.wait = Math.min(this.wait * 2, LONGEST_MS);
    }
    return due;
  }

  /** Something changed, the network or who is signed in: try at once. */
  now(): void {
    this.wait = FIRST_MS;
    this.go();
  }

  /** The server answered. */
  reached(): void {
    this.wait = FIRST_MS;
  }

  /** Nobody waits any more. */
  stop(): void {
    clearTimeout(this.timer);
    this.timer = undefined;
    this.waiting = [];
  }

  private go(): void {
    clearTimeout(this.timer);
    this.timer = undefined;
    const due = this.waiting;
    this.waiting = [];
    for (const one of due) one();
  }
}
