/** What a pointer and the arrow keys do on a drawing, for everything that can be moved. */
import type { Point2 } from "../core/view";

/** One press of an arrow, metres; Shift ten of it, Alt a tenth. */
export const STEP_M = 0.01;

const ARROWS: Record<string, Point2> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};

/** The way an arrow key points on the screen; undefined for any other key. */
export function arrowOf(e: React.KeyboardEvent): Point2 | undefined {
  return ARROWS[e.key];
}

/** Follow a pointer from down to up, in steps of one frame at most. */
export function follow(
  start: React.PointerEvent,
  onStep: (dx: number, dy: number, done: boolean) => void,
) {
  const target = start.currentTarget as Element;
  target.setPointerCapture(start.pointerId);
  const [x0, y0] = [start.clientX, start.clientY];
  let far = false;
  const move = (e: Event) => {
    const p = e as PointerEvent;
    far ||= Math.hypot(p.clientX - x0, p.clientY - y0) > 2;
    if (far) onStep(p.clientX - x0, p.clientY - y0, false);
  };
  const end = (e: Event) => {
    const p = e as PointerEvent;
    target.removeEventListener("pointermove", move);
    if (far) onStep(p.clientX - x0, p.clientY - y0, true);
  };
  target.addEventListener("pointermove", move);
  target.addEventListener("pointerup", end, { once: true });
}
