/** A button that goes on while it is held: a step for each press, then more of them. */
import { type MouseEvent, type PointerEvent, useEffect, useMemo } from "react";
import { useSteady } from "../steady";

/** How long a press is before it is meant to go on, and then from step to step. */
const HELD_MS = 450;
const EACH_MS = 140;

/**
 * What such a button listens to. A press steps where it is let go of, as any button does: a finger
 * that only begins to scroll there moves nothing. `step` may change while it is held.
 */
export function useHeld(step: () => void) {
  const newest = useSteady(step);
  const hold = useMemo(() => new Holding(newest), [newest]);
  useEffect(() => () => hold.end(), [hold]);
  return hold.listens;
}

/** One such button; `step` is asked for each step. */
export class Holding {
  private timer: ReturnType<typeof setTimeout> | undefined;
  /** It went on by itself: to let go is no step more. */
  private went = false;

  constructor(private readonly step: () => void) {}

  readonly listens = {
    onPointerDown: (e: PointerEvent) => {
      if (e.button !== 0) return;
      this.end();
      this.went = false;
      this.timer = setTimeout(this.again, HELD_MS);
    },
    onPointerUp: () => this.end(),
    onPointerCancel: () => this.end(),
    onPointerLeave: () => this.end(),
    // A long press is no question for a menu here.
    onContextMenu: (e: MouseEvent) => e.preventDefault(),
    onClick: (e: MouseEvent) => {
      this.end();
      // By a key or a screen reader there was no press before it.
      if (!this.went || e.detail === 0) this.step();
      this.went = false;
    },
  };

  private readonly again = () => {
    this.went = true;
    this.step();
    this.timer = setTimeout(this.again, EACH_MS);
  };

  end(): void {
    clearTimeout(this.timer);
    this.timer = undefined;
  }
}
