/**
 * What waits for the next frame, in its order: first where the hand is, then what is drawn of it,
 * last what is put where that has it.
 *
 * Whatever is drawn more often than that is laid out for nobody's eyes.
 */

/** A frame that has taken so long for what is due with it has no time for more, */
const FULL_MS = 8;
/** though after so many of those one is taken all the same. */
const FULL_FRAMES = 3;

export class Frames {
  private readonly hands = new Set<() => void>();
  private readonly draws = new Set<() => void>();
  private turns = new Set<() => void>();
  private readonly ends = new Set<() => void>();
  private awaited = false;
  private spent = false;
  private waited = 0;

  /** Before anything is drawn; what that asks to draw goes with the same frame. */
  readonly move = (step: () => void) => this.put(this.hands, step);

  readonly draw = (step: () => void) => this.put(this.draws, step);

  /**
   * What takes much of a frame and can wait for one: a single one of these goes with each, in the
   * order in which they came; before all others what a hand waits for.
   */
  readonly turn = (step: () => void, first = false) => {
    if (first) this.turns = new Set([step, ...this.turns]);
    this.put(this.turns, step);
  };

  /** Much is done for the next frame anyhow: it is no turn of anything else. */
  readonly spend = () => {
    this.spent = true;
  };

  /** After all that is drawn, and with the frame in which that asks for it. */
  readonly end = (step: () => void) => this.put(this.ends, step);

  /** No more with the next frame. */
  readonly drop = (step: () => void) => {
    for (const steps of [this.hands, this.draws, this.turns, this.ends]) steps.delete(step);
  };

  private put(steps: Set<() => void>, step: () => void): void {
    steps.add(step);
    this.await();
  }

  private await(): void {
    if (this.awaited) return;
    this.awaited = true;
    requestAnimationFrame(() => {
      this.awaited = false;
      const began = performance.now();
      this.run(this.hands);
      this.run(this.draws);
      this.takeTurn(this.spent || performance.now() - began > FULL_MS);
      this.run(this.ends);
      if (this.turns.size > 0) this.await();
    });
  }

  /** One of those that wait; in a full frame none, but they do not wait for long. */
  private takeTurn(full: boolean): void {
    this.spent = false;
    if (this.turns.size > 0 && full && this.waited < FULL_FRAMES) this.waited++;
    else {
      this.waited = 0;
      this.run(this.turns, 1);
    }
  }

  private run(due: Set<() => void>, most = due.size): void {
    const steps = [...due].slice(0, most);
    for (const step of steps) due.delete(step);
    for (const step of steps) {
      try {
        step();
      } catch (error) {
        reportError(error);
      }
    }
  }
}

export const frames = new Frames();
