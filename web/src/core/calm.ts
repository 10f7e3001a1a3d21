/** How often what is read is drawn while a hand moves something: sentences, curves, fields. */
import { type Frames, frames } from "./frames";

/** As often as it can be read, */
export const CALM_MS = 100;
/** and several numbers side by side, which is not as soon, */
export const NUMBERS_MS = 300;
/**
 * so seldom that to draw it takes no more than a twentieth of the time (to lay it out and paint it
 * takes half as long again),
 */
const TIMES_DRAWN = 20;
/** but once a second. */
const SELDOM_MS = 1000;

/** Milliseconds from one to the next, by how many the last took to draw. */
export function calmAfter(drawn: number, times = TIMES_DRAWN, least = CALM_MS): number {
  return Math.max(least, Math.min(times * drawn, SELDOM_MS));
}

/** Tells of changes so often, each time in its turn with a frame; the last is always told. */
export class Calm {
  private last = 0;
  private drawn = 0;
  private clock: ReturnType<typeof setTimeout> | undefined;

  constructor(
    private readonly tell: () => void,
    private readonly turns: Pick<Frames, "turn" | "drop"> = frames,
    private readonly least = CALM_MS,
  ) {}

  /** Something has changed; `atOnce` where no hand changes it over and over. */
  hear(atOnce: boolean): void {
    const wait = this.last + calmAfter(this.drawn, TIMES_DRAWN, this.least) - Date.now();
    if (atOnce) this.now();
    else if (wait > 0) this.clock ??= setTimeout(this.due, wait);
    else this.due();
  }

  /** Nothing more is told. */
  stop(): void {
    clearTimeout(this.clock);
    this.clock = undefined;
    this.turns.drop(this.timed);
  }

  /** Drawn by itself, between two frames, the page would be laid out for it and for the next one. */
  private readonly due = (): void => this.turns.turn(this.timed);

  private now(): void {
    this.stop();
    this.last = Date.now();
    this.tell();
  }

  /** Of what is told at once much more is drawn than this: that says nothing of how long it takes. */
  private readonly timed = (): void => {
    const began = performance.now();
    this.now();
    // Who listens draws before this.
    queueMicrotask(() => {
      this.drawn = performance.now() - began;
    });
  };
}
