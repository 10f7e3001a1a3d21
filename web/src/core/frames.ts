/**
 * What waits for the next frame, in its order: first where the hand is, then what is drawn of it,
 * last what is put where that has it.
 *
 * Whatever is drawn more often than that is laid out for nobody's eyes.
 */

export class Frames {
  private readonly hands = new Set<() => void>();
  private readonly draws = new Set<() => void>();
  private readonly ends = new Set<() => void>();
  private awaited = false;

  /** Before anything is drawn; what that asks to draw goes with the same frame. */
  readonly move = (step: () => void) => this.put(this.hands, step);

  readonly draw = (step: () => void) => this.put(this.draws, step);

  /** After all that is drawn, and with the frame in which that asks for it. */
  readonly end = (step: () => void) => this.put(this.ends, step);

  /** No more with the next frame. */
  readonly drop = (step: () => void) => {
    for (const steps of [this.hands, this.draws, this.ends]) steps.delete(step);
  };

  private put(steps: Set<() => void>, step: () => void): void {
    steps.add(step);
    if (this.awaited) return;
    this.awaited = true;
    requestAnimationFrame(() => {
      this.awaited = false;
      for (const due of [this.hands, this.draws, this.ends]) this.run(due);
    });
  }

  private run(due: Set<() => void>): void {
    const steps = [...due];
    due.clear();
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
