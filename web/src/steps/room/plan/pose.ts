/** Where the kit stands in its room and how it is turned, and what the plan of it is given. */
import { type RefObject, useLayoutEffect, useRef } from "react";
import type { Layout, Room, RoomBoard, SpotTried } from "../../../api/types";
import type { Ruler } from "../../../core/units";
import { type Point2, toScreen, type View } from "../../../core/view";
import { useEditor, useEditorPart } from "../../../parts/editing";
import type { HandHere } from "../useHere";
import type { GoboChange } from "./GoboHandles";

export interface Pose {
  x: number;
  y: number;
  turn: number;
}

export interface PlanProps {
  /** Without what the hand is just doing: what it holds is moved on the drawing of it. */
  layout: Layout;
  /** That layout's. */
  room: Room;
  board: RoomBoard | undefined;
  hand: HandHere;
  tried: SpotTried[];
  ruler: Ruler;
  showMap: boolean;
  onPose: (pose: Pose, done: boolean) => void;
  onNudge: (by: Pose) => void;
  onGobo: (index: number, change: GoboChange, done: boolean) => void;
}

/** How the hand has turned the kit. */
export function useHeldTurn(kept: Room): number {
  return useEditorPart((s) => s.doc.room?.kit_turn_rad) ?? kept.kit_turn_rad;
}

/** Where the snare is on the paper as it is kept. */
export const snareAt = (kept: Room, view: View): Point2 =>
  toScreen([kept.kit_x_m, kept.kit_y_m, 0], view);

/**
 * What goes along with the kit: put where the hand has it at every move, and drawn anew for none of
 * them. `put` is told how far it has been carried from where it is kept, pixels.
 */
export function useCarried<E extends Element>(
  kept: Room,
  view: View,
  put: (element: E, by: Point2) => void,
): RefObject<E | null> {
  const editor = useEditor();
  const ref = useRef<E>(null);
  useLayoutEffect(() => {
    const follow = () => {
      const { kit_x_m, kit_y_m } = editor.snapshot().doc.room ?? kept;
      const [x, y] = [kit_x_m - kept.kit_x_m, kept.kit_y_m - kit_y_m];
      if (ref.current) put(ref.current, [x * view.scale, y * view.scale]);
    };
    follow();
    return editor.subscribe(follow);
  }, [editor, kept, view, put]);
  return ref;
}

/** A sheet of its own, moved. */
export function carrySheet(sheet: SVGSVGElement, [x, y]: Point2): void {
  sheet.style.transform = `translate(${x}px, ${y}px)`;
}

/** A part of a drawing, moved in it. */
export function carryPart(part: SVGGElement, [x, y]: Point2): void {
  part.setAttribute("transform", `translate(${x} ${y})`);
}
