/**
 * A mic that the hand moves, moved on the drawing at every frame: its place is only shifted.
 *
 * What is shown under the hand is a copy on a sheet of its own, and the drawing's own mic is out of
 * sight meanwhile.
 */
import { type RefObject, useLayoutEffect } from "react";
import type { Layout, Mic } from "../../api/types";
import { micOf } from "../../core/edits";
import { frames } from "../../core/frames";
import { toScreen, type View } from "../../core/view";
import { CLEAR, copied, inSight, moveSheet, outOfSight, type Sheet, sheetOf } from "../sheets";
import type { ChartProps } from "./look";

/** What goes along with a mic on the paper, made once for a hand. */
interface Grip {
  id: string;
  sheets: Sheet[];
  /** Lines with an end at the mic. */
  lines: SVGElement[];
}

/** The mic alone: its stand goes another way. */
function withoutStand(part: Element): Element {
  const copy = part.cloneNode(true) as Element;
  copy.querySelector("[data-stand]")?.remove();
  return copied(copy);
}

const aboutOf = (view: View, mic: string) => ({ hand: mic, view: view.facing });

/** The stand goes sideways with its mic and stays on the floor: its sheet shows down to that. */
function standSheet(paper: Element, stand: Element, view: View, mic: string): Sheet {
  const above = document.createElement("div");
  above.className = `${CLEAR} overflow-hidden`;
  above.style.height = `${stand.getAttribute("y2")}px`;
  paper.append(above);
  const long = copied(stand);
  long.setAttribute("y2", `${Number(long.getAttribute("y1")) + 2 * view.height}`);
  return { ...sheetOf(above, [long], view, aboutOf(view, mic)), on: above };
}

function gripOf(paper: Element, id: string, view: View): Grip {
  const parts = [...paper.querySelectorAll<SVGElement>(`[data-mic="${id}"], [data-aim="${id}"]`)];
  const stand = paper.querySelector(`[data-mic="${id}"] [data-stand]`);
  const sheets = [sheetOf(paper, parts.map(withoutStand), view, aboutOf(view, id))];
  parts.forEach(outOfSight);
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
  for (const sheet of grip.sheets) moveSheet(sheet, x - x0, y - y0);
  for (const line of grip.lines) {
    line.setAttribute("x1", x.toFixed(2));
    line.setAttribute("y1", y.toFixed(2));
  }
}

/** The drawing's own mic is seen again; lines are made anew by who draws them. */
function settle(paper: Element, grip: Grip | null): void {
  inSight(paper.querySelectorAll("[data-mic][style], [data-aim][style]"), grip?.sheets ?? []);
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
    let held: Mic | null = null;
    const letGo = () => {
      frames.drop(along);
      settle(drawn, grip);
      grip = null;
    };
    const along = () => {
      if (!grip || !held) return;
      grip.lines = linesOf(drawn, grip);
      shift(grip, layout, view, held);
    };
    const leave = watch((mic) => {
      held = mic;
      if (!mic) return letGo();
      if (grip?.id === mic.id) return frames.draw(along);
      letGo();
      grip = gripOf(drawn, mic.id, view);
      along();
    });
    return () => {
      leave();
      letGo();
    };
  });
}
