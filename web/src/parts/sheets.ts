/**
 * Sheets that a hand moves: what is shown under it is a copy, on a sheet of its own.
 *
 * A sheet is moved by an animation that stands still: the browser then lays out, paints and orders
 * nothing anew for a frame, which it does for any other way of moving.
 */

export interface Sheet {
  on: Element;
  motion: Animation;
  /** As it was moved last. */
  at: string;
}

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

/**
 * A sheet over its paper with copies of what is drawn in this box, no larger than that: whatever
 * lies under a sheet is put together anew with every frame. What leaves the paper is cut off by
 * that alone. It lies right over `over`, or over all that is there.
 */
export function sheetOf(
  paper: Element,
  box: Box,
  copies: Element[],
  about: Record<string, string>,
  over?: Element,
): Sheet {
  const svg = papered(box, copies);
  Object.assign(svg.dataset, about);
  if (over) over.after(svg);
  else paper.append(svg);
  return moving(svg);
}

export interface Box {
  left: number;
  top: number;
  wide: number;
  high: number;
}

/** Where these are drawn on their paper, strokes and all, on whole pixels: read off the page. */
export function boundsOf(paper: Element, parts: readonly Element[]): Box {
  const { left: x, top: y } = paper.getBoundingClientRect();
  const boxes = parts.map((p) => p.getBoundingClientRect());
  const left = Math.floor(Math.min(...boxes.map((b) => b.left)) - x) - 1;
  const top = Math.floor(Math.min(...boxes.map((b) => b.top)) - y) - 1;
  const wide = Math.ceil(Math.max(...boxes.map((b) => b.right)) - x) + 1 - left;
  const high = Math.ceil(Math.max(...boxes.map((b) => b.bottom)) - y) + 1 - top;
  return { left, top, wide, high };
}

/** A piece of the paper, with these where they were on the whole. */
function papered({ left, top, wide, high }: Box, copies: Element[]): SVGSVGElement {
  const svg = document.createElementNS("http://www.w3.org/2000/svg", "svg");
  svg.setAttribute("class", "pointer-events-none absolute overflow-visible");
  svg.setAttribute("aria-hidden", "true");
  svg.setAttribute("viewBox", `${left} ${top} ${wide} ${high}`);
  const at = { left, top, width: wide, height: high };
  for (const [name, px] of Object.entries(at)) svg.style.setProperty(name, `${px}px`);
  svg.append(...copies);
  return svg;
}

/** What is on the page already, ready to be moved. */
export function moving(on: HTMLElement | SVGSVGElement): Sheet {
  const motion = on.animate(null, { duration: 1, fill: "both" });
  motion.pause();
  return { on, motion, at: "" };
}

/** So many pixels from where it lay. */
export function moveSheet(sheet: Sheet, dx: number, dy: number): void {
  transformSheet(sheet, `translate(${dx.toFixed(2)}px, ${dy.toFixed(2)}px)`);
}

export function transformSheet(sheet: Sheet, transform: string): void {
  if (transform === sheet.at) return;
  sheet.at = transform;
  (sheet.motion.effect as KeyframeEffect).setKeyframes({ transform: [transform, transform] });
}
