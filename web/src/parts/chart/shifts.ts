/**
 * A mic that the hand moves, moved on the drawing at every frame: its place is only shifted.
 *
 * What is shown under the hand is a copy on a sheet of its own, and the drawing's own mic is out of
 * sight meanwhile. A sheet is moved by an animation that stands still: the browser then lays out,
 * paints and orders nothing anew for a frame, which it does for any other way of moving.
 */
import { type RefObject, useLayoutEffect } from "react";
import type { Layout, Mic } from "../../api/types";
import { micOf } from "../../core/edits";
import { toScreen, type View } from "../../core/view";
import type { ChartProps } from "./look";

/** What goes along with a mic on the paper, made once for a hand. */
interface Grip {
  id: string;
  sheets: Sheet[];
  /** Lines with an end at the mic. */
  lines: SVGElement[];
}

interface Sheet {
  on: Element;
  motion: Animation;
}

const CLEAR = "absolute inset-0 pointer-events-none";

/** Still held by the pointer and by the keys: it only is not seen, nor the frame round it. */
const OUT_OF_SIGHT = { opacity: "0", outline: "none" };

/** Copies for the eye alone: nothing takes hold of them, nothing reads them aloud. */
function copied(part: Element): Element {
  const copy = part.cloneNode(true) as Element;
  copy.querySelector("[data-stand]")?.remove();
  for (const one of [copy, ...copy.querySelectorAll("*")])
    for (const name of one.getAttributeNames())
      if (/^(data-|aria-|role$|tabindex$|style$)/.test(name)) one.removeAttribute(name);
  return copy;
}

/** A sheet over the paper with these on it; what leaves the paper is cut off by the paper alone. */
function sheetOf(paper: Element, parts: Element[], view: View, mic: string): Sheet {
  const svg = document.createElementNS("http://www.w3.org/2000/svg", "svg");
  svg.setAttribute("width", `${view.width}`);
  svg.setAttribute("height", `${view.height}`);
  svg.setAttribute("class", `${CLEAR} overflow-visible`);
  svg.setAttribute("aria-hidden", "true");
  svg.dataset.hand = mic;
  svg.dataset.view = view.facing;
  svg.append(...parts);
  paper.append(svg);
  const motion = svg.animate(null, { duration: 1, fill: "both" });
  motion.pause();
  return { on: svg, motion };
}

/** The stand goes sideways with its mic and stays on the floor: its sheet shows down to that. */
function standSheet(paper: Element, stand: Element, view: View, mic: string): Sheet {
  const above = document.createElement("div");
  above.className = `${CLEAR} overflow-hidden`;
  above.style.height = `${stand.getAttribute("y2")}px`;
  paper.append(above);
  const long = copied(stand);
  long.setAttribute("y2", `${Number(long.getAttribute("y1")) + 2 * view.height}`);
  return { ...sheetOf(above, [long], view, mic), on: above };
}

function gripOf(paper: Element, id: string, view: View): Grip {
  const parts = [...paper.querySelectorAll<SVGElement>(`[data-mic="${id}"], [data-aim="${id}"]`)];
  const stand = paper.querySelector(`[data-mic="${id}"] [data-stand]`);
  const sheets = [sheetOf(paper, parts.map(copied), view, id)];
  for (const part of parts) Object.assign(part.style, OUT_OF_SIGHT);
  if (stand) sheets.unshift(standSheet(paper, stand, view, id));
  return { id, sheets, lines: [] };
}

/** The lines are drawn anew when a hand takes hold. */
function linesOf(paper: Element, { id, lines }: Grip): SVGElement[] {
  if (lines.length > 0 && lines.every((l) => l.isConnected)) return lines;
  return [...paper.querySelectorAll<SVGElement>(`[data-from="${id}"]`)];
}

function shift(grip: Grip, layout: Layout, view: View, mic: Mic): void {
  const from = micOf(layout, mic.id);
  if (!from) return;
  const [x0, y0] = toScreen(from.position_m, view);
  const [x, y] = toScreen(mic.position_m, view);
  const there = `translate(${(x - x0).toFixed(2)}px, ${(y - y0).toFixed(2)}px)`;
  for (const { motion } of grip.sheets)
    (motion.effect as KeyframeEffect).setKeyframes({ transform: [there, there] });
  for (const line of grip.lines) {
    line.setAttribute("x1", x.toFixed(2));
    line.setAttribute("y1", y.toFixed(2));
  }
}

/** The drawing's own mic is seen again; lines are made anew by who draws them. */
function settle(paper: Element, grip: Grip | null): void {
  for (const { on } of grip?.sheets ?? []) on.remove();
  for (const part of paper.querySelectorAll<SVGElement>("[data-mic][style], [data-aim][style]"))
    part.removeAttribute("style");
}

/**
 * Keep the paper with the hand. Whenever the chart is drawn anew the sheets are too, before the
 * next frame: they look as it does.
 */
export function useShifts(paper: RefObject<Element | null>, props: ChartProps, view: View): void {
  const { watch, layout } = props;
  useLayoutEffect(() => {
    const drawn = paper.current;
    if (!watch || !drawn || view.scale === 0) return;
    let grip: Grip | null = null;
    const letGo = () => {
      settle(drawn, grip);
      grip = null;
    };
    const leave = watch((mic) => {
      if (!mic) return letGo();
      if (grip?.id !== mic.id) {
        letGo();
        grip = gripOf(drawn, mic.id, view);
      }
      grip.lines = linesOf(drawn, grip);
      shift(grip, layout, view, mic);
    });
    return () => {
      leave();
      letGo();
    };
  });
}
