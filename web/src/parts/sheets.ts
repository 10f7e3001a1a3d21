/**
 * Sheets that a hand moves: what is shown under it is a copy, on a sheet of its own.
 *
 * A sheet is moved by an animation that stands still: the browser then lays out, paints and orders
 * nothing anew for a frame, which it does for any other way of moving.
 */

export interface Sheet {
  on: Element;
  motion: Animation;
}

export const CLEAR = "absolute inset-0 pointer-events-none";

/** What is copied is still held by the pointer and by the keys: it only is not seen. */
const OUT_OF_SIGHT = { opacity: "0", outline: "none" };

export function outOfSight(part: SVGElement): void {
  Object.assign(part.style, OUT_OF_SIGHT);
}

/** All that was out of sight is seen again, and the sheets are gone. */
export function inSight(parts: Iterable<Element>, sheets: readonly Sheet[]): void {
  for (const { on } of sheets) on.remove();
  for (const part of parts) part.removeAttribute("style");
}

/** A copy for the eye alone: nothing takes hold of it, nothing reads it aloud. */
export function copied(part: Element): Element {
  const copy = part.cloneNode(true) as Element;
  for (const one of [copy, ...copy.querySelectorAll("*")])
    for (const name of one.getAttributeNames())
      if (/^(data-|aria-|role$|tabindex$|style$)/.test(name)) one.removeAttribute(name);
  return copy;
}

/** A sheet as large as its paper with these on it; what leaves the paper is cut off by that alone. */
export function sheetOf(
  paper: Element,
  parts: Element[],
  size: { width: number; height: number },
  about: Record<string, string>,
): Sheet {
  const svg = document.createElementNS("http://www.w3.org/2000/svg", "svg");
  svg.setAttribute("width", `${size.width}`);
  svg.setAttribute("height", `${size.height}`);
  svg.setAttribute("class", `${CLEAR} overflow-visible`);
  svg.setAttribute("aria-hidden", "true");
  Object.assign(svg.dataset, about);
  svg.append(...parts);
  paper.append(svg);
  const motion = svg.animate(null, { duration: 1, fill: "both" });
  motion.pause();
  return { on: svg, motion };
}

/** So many pixels from where it lay. */
export function moveSheet({ motion }: Sheet, dx: number, dy: number): void {
  const there = `translate(${dx.toFixed(2)}px, ${dy.toFixed(2)}px)`;
  (motion.effect as KeyframeEffect).setKeyframes({ transform: [there, there] });
}
