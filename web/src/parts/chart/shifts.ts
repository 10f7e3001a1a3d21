/** A mic that the hand moves, moved on the drawing at every frame: its place is only shifted. */
import { type RefObject, useLayoutEffect } from "react";
import type { Layout, Mic } from "../../api/types";
import { micOf } from "../../core/edits";
import { toScreen, type View } from "../../core/view";
import type { ChartProps } from "./look";

/** What goes along with a mic on the paper, looked up once for a hand. */
interface Grip {
  id: string;
  parts: SVGElement[];
  /** Lines with an end at the mic. */
  lines: SVGElement[];
  /** Its stand, whose foot stays on the floor, and where that is. */
  stand: SVGElement | undefined;
  floor: number;
}

function gripOf(paper: Element, id: string): Grip {
  const all = (what: string) => [...paper.querySelectorAll<SVGElement>(what)];
  const [stand] = all(`[data-mic="${id}"] [data-stand]`);
  const parts = all(`[data-mic="${id}"], [data-aim="${id}"]`);
  for (const part of parts) part.style.willChange = "transform";
  const floor = Number(stand?.getAttribute("data-stand"));
  return { id, parts, lines: all(`[data-from="${id}"]`), stand, floor };
}

/** Whether it is all still on the paper: the lines are drawn anew when a hand takes hold. */
const holds = ({ parts, lines }: Grip) =>
  lines.length > 0 && [...parts, ...lines].every((p) => p.isConnected);

function shift(grip: Grip, layout: Layout, view: View, mic: Mic): void {
  const from = micOf(layout, mic.id);
  if (!from) return;
  const [x0, y0] = toScreen(from.position_m, view);
  const [x, y] = toScreen(mic.position_m, view);
  const there = `translate(${(x - x0).toFixed(2)}px, ${(y - y0).toFixed(2)}px)`;
  for (const part of grip.parts) part.style.transform = there;
  for (const line of grip.lines) {
    line.setAttribute("x1", x.toFixed(2));
    line.setAttribute("y1", y.toFixed(2));
  }
  grip.stand?.setAttribute("y2", (grip.floor - (y - y0)).toFixed(2));
}

/** Everything is where the drawing has it again; lines are made anew by who draws them. */
function settle(paper: Element): void {
  for (const part of paper.querySelectorAll<SVGElement>("[data-mic][style], [data-aim][style]"))
    part.removeAttribute("style");
  for (const stand of paper.querySelectorAll("[data-stand]"))
    stand.setAttribute("y2", stand.getAttribute("data-stand") ?? "0");
}

/** Keep the paper with the hand: what is shown is put right again before the next frame. */
export function useShifts(paper: RefObject<Element | null>, props: ChartProps, view: View): void {
  const { watch, layout } = props;
  useLayoutEffect(() => {
    const drawn = paper.current;
    if (!watch || !drawn || view.scale === 0) return;
    let grip: Grip | null = null;
    const leave = watch((mic) => {
      if (!mic) {
        grip = null;
        return settle(drawn);
      }
      if (!grip || grip.id !== mic.id || !holds(grip)) grip = gripOf(drawn, mic.id);
      shift(grip, layout, view, mic);
    });
    return () => {
      leave();
      settle(drawn);
    };
  }, [watch, paper, layout, view]);
}
