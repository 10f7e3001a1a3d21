/**
 * A mic that the hand moves, moved on the drawing at every frame: its place is only shifted.
 *
 * What is shown under the hand is a copy on a sheet of its own, and the drawing's own mic is out of
 * sight meanwhile.
 */
import { type RefObject, useLayoutEffect } from "react";
import type { Layout, Mic } from "../../api/types";
import { apart } from "../../core/apart";
import { micOf } from "../../core/edits";
import { frames } from "../../core/frames";
import { toScreen, type View } from "../../core/view";
import {
  type Box,
  boundsOf,
  copied,
  inSight,
  moveSheet,
  outOfSight,
  type Sheet,
  sheetOf,
} from "../sheets";
import { type Bar, barOf, reach } from "./bars";
import type { ChartProps } from "./look";

/** What goes along with a mic on the paper, made once for a hand. */
interface Grip {
  id: string;
  sheets: Sheet[];
  /** In the place of lines with an end at the mic. */
  bars: Bar[];
}

/** The mic alone: its stand goes another way. */
function withoutStand(part: Element): Element {
  const copy = part.cloneNode(true) as Element;
  copy.querySelector("[data-stand]")?.remove();
  return copied(copy);
}

const standless = (part: Element): Element[] =>
  part.querySelector("[data-stand]")
    ? [...part.children].filter((c) => !c.matches("[data-stand]"))
    : [part];

const aboutOf = (view: View, mic: string) => ({ hand: mic, view: view.facing });

/** What of the drawing a hand takes hold of, and where that is. */
interface Found {
  parts: SVGElement[];
  /** A view may not show it: nothing has no place. */
  box: Box | null;
  stand: { line: Element; box: Box } | null;
}

function found(paper: Element, id: string): Found {
  const parts = [...paper.querySelectorAll<SVGElement>(`[data-mic="${id}"], [data-aim="${id}"]`)];
  const line = paper.querySelector(`[data-mic="${id}"] [data-stand]`);
  return {
    parts,
    box: parts.length > 0 ? boundsOf(paper, parts.flatMap(standless)) : null,
    stand: line && { line, box: boundsOf(paper, [line]) },
  };
}

/** The stand goes sideways with its mic and stays on the floor: its sheet shows down to that. */
function standSheet(
  paper: Element,
  { line, box }: NonNullable<Found["stand"]>,
  view: View,
  mic: string,
): Sheet {
  const above = document.createElement("div");
  above.className = "pointer-events-none absolute inset-x-0 top-0 overflow-hidden";
  above.style.height = `${line.getAttribute("y2")}px`;
  const long = copied(line);
  long.setAttribute("y2", `${Number(long.getAttribute("y1")) + 2 * view.height}`);
  const sheet = sheetOf(paper, box, [long], aboutOf(view, mic));
  paper.append(above);
  above.append(sheet.on);
  return { ...sheet, on: above };
}

function gripOf(paper: Element, id: string, view: View, { parts, box, stand }: Found): Grip {
  const sheets = stand ? [standSheet(paper, stand, view, id)] : [];
  if (box) sheets.push(sheetOf(paper, box, parts.map(withoutStand), aboutOf(view, id)));
  parts.forEach(outOfSight);
  return { id, sheets, bars: [] };
}

/** Bars under the mics, made once the lines are there: the pair may open when a hand takes hold. */
function barsOf(paper: Element, { id, bars }: Grip): Bar[] {
  if (bars.length > 0 && bars.every((b) => b.line.isConnected)) return bars;
  for (const { sheet } of bars) sheet.on.remove();
  const mics = paper.querySelector("svg[role=group]");
  const lines = paper.querySelectorAll<SVGElement>(`[data-from="${id}"]`);
  return mics ? [...lines].map((line) => barOf(line, mics)) : [];
}

function shift(grip: Grip, layout: Layout, view: View, mic: Mic): void {
  const from = micOf(layout, mic.id);
  if (!from) return;
  const [x0, y0] = toScreen(from.position_m, view);
  const [x, y] = toScreen(mic.position_m, view);
  for (const sheet of grip.sheets) moveSheet(sheet, x - x0, y - y0);
  for (const bar of grip.bars) reach(bar, [x, y]);
}

/** What the drawing has of its own is seen again. */
function settle(paper: Element, { sheets, bars }: Grip): void {
  const own = ["[data-mic][style]", "[data-aim][style]", "[data-from][style]"].join();
  inSight(paper.querySelectorAll(own), [...bars.map((b) => b.sheet), ...sheets]);
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
    let [grip, held, taken]: [Grip | null, Mic | null, string | null] = [null, null, null];
    const letGo = () => {
      for (const step of [along, take]) frames.drop(step);
      if (grip) settle(drawn, grip);
      [grip, taken] = [null, null];
    };
    const along = () => {
      if (!grip || !held) return;
      grip.bars = barsOf(drawn, grip);
      shift(grip, layout, view, held);
    };
    const take = () =>
      apart(() => {
        const id = taken;
        if (!id || grip) return;
        const there = found(drawn, id);
        return () => {
          grip ??= gripOf(drawn, id, view, there);
          along();
        };
      });
    // Drawn anew under a hand it is taken hold of at once; at first only in the view where the hand
    // is, and then in the other: both would take longer than a frame.
    let atOnce = true;
    const leave = watch((mic) => {
      held = mic;
      if (!mic) return letGo();
      if (taken === mic.id) return frames.draw(along);
      letGo();
      taken = mic.id;
      if (atOnce || drawn.matches(":hover")) {
        frames.spend();
        take();
      } else frames.turn(take, true);
    });
    atOnce = false;
    return () => {
      leave();
      letGo();
    };
  });
}
