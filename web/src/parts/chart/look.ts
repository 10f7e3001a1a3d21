/** What the floor chart is given: what is drawn, and what is told when a hand does something. */
import type { ReactNode } from "react";
import type { Board, Layout, Mic } from "../../api/types";
import type { Carrying } from "../../core/carry";
import type { Ruler } from "../../core/units";
import type { Facing, Point3, Side, View } from "../../core/view";

export interface ChartProps {
  title: string;
  hint: string;
  facing: Facing;
  side: Side;
  layout: Layout;
  /** Without what a hand is just doing: by that, plates have their places until it leaves. */
  still?: Layout;
  board: Board | null;
  ruler: Ruler;
  lit: string[];
  /** Mics that are only shown, not taken: drawn dashed. */
  fresh?: string[];
  onSelect: (id: string, extend: boolean) => void;
  onHover: (id: string | null) => void;
  onMove: (id: string, to: Point3, done: boolean) => void;
  /** A hand is on a mic; the answer is for when it leaves without having moved it. */
  onHold?: (id: string) => () => void;
  /** Where the selected mic can be turned. */
  onAim?: (id: string, aim: Point3, done: boolean) => void;
  onNudge: (id: string, to: Point3) => void;
  tools?: ReactNode;
  /** What lies on the ground with the kit and seldom changes. */
  lain?: (view: View) => ReactNode;
  /** Tells where the hand has a mic, at every frame; the drawing moves it without being made anew. */
  watch?: (watcher: (mic: Mic | null) => void) => () => void;
  /** Where a hand has what it carries: the drawing shifts that, without being made anew. */
  carrying?: Carrying;
  /** Something of the step's own, drawn over the kit; the mics stand back then. */
  layer?: (view: View) => ReactNode;
}

/** The same within a view; `quiet` mics are only drawn, another step has the hand. */
export type InView = ChartProps & { view: View; quiet?: boolean };
