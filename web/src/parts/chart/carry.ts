/**
 * What a hand carries, and what goes along, moved on a drawing at every frame: as with a mic, what
 * is shown then are copies on sheets of their own, and the drawing's own are out of sight.
 */
import { type RefObject, useLayoutEffect } from "react";
import { apart } from "../../core/apart";
import { shiftsOf } from "../../core/carry";
import { frames } from "../../core/frames";
import type { Point2, View } from "../../core/view";
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

type Shifts = Map<string, Point2>;

/** The name of each thing that goes, and for a line those of its ends, or the floor under one. */
const GOES = "data-goes";
const ENDS = "data-ends";

/** For a line between what may go: whose its ends are, and where. */
export function endsOf(names: readonly [string, string], [p, q]: [Point2, Point2]) {
  return { x1: p[0], y1: p[1], x2: q[0], y2: q[1], [ENDS]: names.join() };
}

/** The floor right under what goes: sideways with it. */
export const floorUnder = (name: string) => `${FLOOR}${name}`;
const FLOOR = "floor:";

function endAt(name: string, [x, y]: Point2, shifts: Shifts, view: View): Point2 {
  const floor = name.startsWith(FLOOR);
  const [dx, dy] = shifts.get(floor ? name.slice(FLOOR.length) : name) ?? [0, 0];
  return [x + dx, floor && view.facing !== "above" ? y : y + dy];
}

/** In the place of a line, with where its ends are at rest. */
interface Line {
  bar: Bar;
  names: string[];
  ends: [Point2, Point2];
}

function lineOf(line: SVGElement): Line {
  const [x1 = 0, y1 = 0, x2 = 0, y2 = 0] = ["x1", "y1", "x2", "y2"].map((name) =>
    Number(line.getAttribute(name)),
  );
  return {
    bar: barOf(line, line.ownerSVGElement as Element),
    names: (line.getAttribute(ENDS) ?? "").split(","),
    ends: [
      [x1, y1],
      [x2, y2],
    ],
  };
}

function stretch({ bar, names: [a = "", b = ""], ends: [p, q] }: Line, shifts: Shifts, view: View) {
  reach(bar, endAt(a, p, shifts, view), endAt(b, q, shifts, view));
}

/** The parts of one name, and where they are. */
interface Lot {
  parts: SVGElement[];
  box: Box;
}

function lotOf(paper: Element, name: string): Lot | null {
  const parts = [...paper.querySelectorAll<SVGElement>(`[${GOES}="${name}"]`)];
  return parts.length > 0 ? { parts, box: boundsOf(paper, parts) } : null;
}

/** As faint as it is on the drawing. */
function copyOf(part: SVGElement): Element {
  const faint = part.parentElement?.closest("g[opacity]");
  if (!faint) return copied(part);
  const about = copied(faint.cloneNode() as Element);
  about.append(copied(part));
  return about;
}

/** All that a hand carries on one chart. */
class Carried {
  private readonly sheets = new Map<string, Sheet>();
  private readonly lines = new Map<SVGElement, Line>();
  private readonly hidden = new Set<SVGElement>();
  private readonly wanted = new Set<string>();
  /** Whether all is taken hold of at once here. */
  private near: boolean | null = null;
  /** Wanted, and not taken hold of yet. */
  private readonly later: string[] = [];
  private shifts: Shifts = new Map();

  constructor(
    private readonly paper: Element,
    private readonly view: View,
  ) {}

  /**
   * Taken hold of at first only in the view where the hand is, and then in the other: both would
   * take longer than a frame.
   */
  go(shifts: Shifts, atOnce: boolean): void {
    this.shifts = shifts;
    for (const name of shifts.keys())
      if (!this.wanted.has(name)) {
        this.wanted.add(name);
        this.later.push(name);
      }
    // Found out once: then a sheet of glass lies over the page.
    this.near ??= atOnce || this.paper.matches(":hover");
    if (this.later.length) this.takeHold();
    frames.end(this.along);
  }

  private takeHold(): void {
    if (this.near) {
      frames.spend();
      this.takeAll();
    } else frames.turn(this.takeAll, true);
  }

  private readonly takeAll = (): void => {
    for (const name of this.later.splice(0)) apart(() => this.take(name));
  };

  private readonly along = (): void => {
    for (const [name, sheet] of this.sheets) {
      const [x, y] = this.shifts.get(name) ?? [0, 0];
      moveSheet(sheet, x, y);
    }
    for (const line of this.lines.values()) stretch(line, this.shifts, this.view);
  };

  private take(name: string) {
    const lot = lotOf(this.paper, name);
    const lines = [...this.paper.querySelectorAll<SVGElement>(`[${ENDS}*="${name}"]`)];
    return () => {
      // Let go of meanwhile.
      if (!this.wanted.has(name)) return;
      if (lot) this.sheets.set(name, this.sheetFor(name, lot));
      for (const line of lines) if (!this.lines.has(line)) this.lines.set(line, lineOf(line));
      for (const part of lot?.parts ?? []) {
        outOfSight(part);
        this.hidden.add(part);
      }
      this.along();
    };
  }

  /**
   * A single one, where the lowest of its parts is: each costs as much of a frame as all that is on
   * it, and under a hand nobody sees whether the grip of a drum is over its mics.
   */
  private sheetFor(name: string, { parts, box }: Lot): Sheet {
    const about = { hand: name, view: this.view.facing };
    const lowest = parts[0]?.ownerSVGElement ?? undefined;
    return sheetOf(this.paper, box, parts.map(copyOf), about, lowest);
  }

  /** What the drawing has of its own is seen again. */
  settle(): void {
    for (const step of [this.along, this.takeAll]) frames.drop(step);
    this.later.length = 0;
    this.near = null;
    const bars = [...this.lines.values()].map(({ bar }) => bar.sheet);
    inSight([...this.hidden, ...this.lines.keys()], [...bars, ...this.sheets.values()]);
    for (const all of [this.wanted, this.sheets, this.lines, this.hidden]) all.clear();
  }
}

/** Whenever the chart is drawn anew its sheets are too: they look as it does. */
export function useCarry(paper: RefObject<Element | null>, props: ChartProps, view: View): void {
  const { carrying, layout } = props;
  useLayoutEffect(() => {
    if (!carrying || !paper.current || view.scale === 0) return;
    const carried = new Carried(paper.current, view);
    let drawnAnew = true;
    const follow = () => {
      const now = carrying.now();
      if (now) carried.go(shiftsOf(layout, now, view), drawnAnew);
      else carried.settle();
    };
    follow();
    drawnAnew = false;
    const leave = carrying.subscribe(follow);
    return () => {
      leave();
      carried.settle();
    };
  });
}
