/** What a pointer and the arrow keys do on a drawing, for everything that can be moved. */
import { apart } from "../core/apart";
import { frames } from "../core/frames";
import type { Point2 } from "../core/view";

/** One press of an arrow, metres; Shift ten of it, Alt a tenth. */
export const STEP_M = 0.01;

/** The same for what is turned, counter-clockwise as seen from above, radians. */
export const TURN_STEP = Math.PI / 36;

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

/**
 * A sheet of glass over the page while something is held: what lies under the pointer is then
 * found at once, however much is drawn, and nothing else lights up on the way.
 */
function glass(): () => void {
  const sheet = document.createElement("div");
  sheet.className = "fixed inset-0 z-[100] cursor-grabbing";
  let lifted = false;
  apart(() => () => {
    if (!lifted) document.body.append(sheet);
  });
  return () => {
    lifted = true;
    sheet.remove();
  };
}

/**
 * Follow a pointer from down to up. The first move of a frame counts at once, so that what it asks
 * is on its way before anything is drawn: where the browser tells of moves as they come (raw), it
 * is not kept for the next frame either. Of the others only the last counts, with the next frame.
 *
 * `hold` is told with the frame after the press, unless it moves at once, and answers with what
 * takes that back where the hand leaves without a move.
 */
export function follow(
  start: React.PointerEvent,
  onStep: (dx: number, dy: number, done: boolean) => void,
  hold?: () => () => void,
) {
  const { pointerId, clientX: x0, clientY: y0 } = start;
  (start.currentTarget as Element).setPointerCapture(pointerId);
  let lift: (() => void) | null = null;
  let leave: (() => void) | undefined;
  const holdNow = () => {
    if (!lift) leave = hold?.();
  };
  if (hold) frames.draw(holdNow);
  // At the window: what is held may be drawn anew meanwhile, and the glass must never stay.
  const over = new AbortController();
  const on = (names: string[], hear: (e: PointerEvent) => void) => {
    const mine = (e: Event) => (e as PointerEvent).pointerId === pointerId;
    for (const name of names)
      window.addEventListener(name, (e) => mine(e) && hear(e as PointerEvent), {
        signal: over.signal,
        capture: true,
      });
  };
  let [dx, dy] = [0, 0];
  let [inFrame, more] = [false, false];
  const step = () => {
    [inFrame, more] = [true, false];
    frames.move(next);
    onStep(dx, dy, false);
  };
  const next = () => {
    inFrame = false;
    if (more) step();
  };
  // Nobody else has to do with a move: to ask all who might takes longer than to move what is held.
  const ours = (e: Event) => e.stopPropagation();
  window.addEventListener("mousemove", ours, { signal: over.signal, capture: true });
  on(["pointerrawupdate", "pointermove"], (e) => {
    ours(e);
    const [x, y] = [e.clientX - x0, e.clientY - y0];
    // Told of twice, raw and with its frame.
    if (x === dx && y === dy) return;
    [dx, dy] = [x, y];
    if (!lift && Math.hypot(dx, dy) <= 2) return;
    lift ??= glass();
    if (inFrame) more = true;
    else step();
  });
  // A touch that the browser takes away ends where it was.
  on(["pointerup", "pointercancel"], (e) => {
    over.abort();
    for (const step of [next, holdNow]) frames.drop(step);
    if (!lift) leave?.();
    lift?.();
    if (e.type === "pointerup") [dx, dy] = [e.clientX - x0, e.clientY - y0];
    if (lift) onStep(dx, dy, true);
  });
}
