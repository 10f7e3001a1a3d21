/** A mic that the hand moves, moved on the drawing at every frame: its place is only shifted. */
import { type RefObject, useLayoutEffect } from "react";
import type { Layout, Mic } from "../../api/types";
import { micOf } from "../../core/edits";
import { toScreen, type View } from "../../core/view";
import type { ChartProps } from "./look";

/** Everything of a mic on the paper that goes along with it. */
const partsOf = (paper: Element, id: string) =>
  paper.querySelectorAll<SVGElement>(`[data-mic="${id}"], [data-aim="${id}"]`);

/** Ends of lines that are at the mic, and the foot of its stand that stays on the floor. */
const linesOf = (paper: Element, id: string) =>
  paper.querySelectorAll<SVGLineElement>(`[data-from="${id}"]`);

function shift(paper: Element, layout: Layout, view: View, mic: Mic): void {
  const from = micOf(layout, mic.id);
  if (!from) return;
  const [x0, y0] = toScreen(from.position_m, view);
  const [x, y] = toScreen(mic.position_m, view);
  const [right, down] = [(x - x0).toFixed(2), (y - y0).toFixed(2)];
  for (const part of partsOf(paper, mic.id)) {
    part.style.willChange = "transform";
    part.style.transform = `translate(${right}px, ${down}px)`;
  }
  for (const line of linesOf(paper, mic.id)) {
    line.setAttribute("x1", String(x));
    line.setAttribute("y1", String(y));
  }
  const stand = paper.querySelector(`[data-mic="${mic.id}"] [data-stand]`);
  stand?.setAttribute("y2", String(Number(stand.getAttribute("data-stand")) - (y - y0)));
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
    const leave = watch((mic) => (mic ? shift(drawn, layout, view, mic) : settle(drawn)));
    return () => {
      leave();
      settle(drawn);
    };
  }, [watch, paper, layout, view]);
}
