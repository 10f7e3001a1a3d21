/** Where the kit stands in its room and how it is turned, and what the plan of it is given. */
import { type RefObject, useLayoutEffect, useRef } from "react";
import type { Layout, Room, RoomBoard, SpotTried } from "../../../api/types";
import { frames } from "../../../core/frames";
import type { Ruler } from "../../../core/units";
import { type Point2, toScreen, type View } from "../../../core/view";
import { useEditor, useEditorPart } from "../../../parts/editing";
import { moveSheet, moving, type Sheet } from "../../../parts/sheets";
import type { HandHere } from "../useHere";
import type { GoboChange, Handled } from "./GoboHandles";

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
  onGobo: (index: number, change: GoboChange, how: Handled) => void;
}

/** How the hand has turned the kit. */
export function useHeldTurn(kept: Room): number {
  return useEditorPart((s) => s.doc.room?.kit_turn_rad) ?? kept.kit_turn_rad;
}

/** Where the snare is on the paper as it is kept. */
export const snareAt = (kept: Room, view: View): Point2 =>
  toScreen([kept.kit_x_m, kept.kit_y_m, 0], view);

/** How far a sheet is moved on the paper, for where the hand has the snare and where that is kept. */
export type Along = (now: Point2, kept: Point2) => Point2;

/** With the kit, wherever that goes. */
export const withKit: Along = (now, kept) => [now[0] - kept[0], now[1] - kept[1]];

/**
 * A sheet that goes along with the kit: moved with the hand, once a frame however often that moves,
 * and drawn anew for none of its moves. `told` where it also goes by what the hand is told.
 */
export function useCarried<E extends HTMLElement | SVGSVGElement>(
  kept: Room,
  view: View,
  along: Along,
  told?: HandHere,
): RefObject<E | null> {
  const editor = useEditor();
  const ref = useRef<E>(null);
  const sheet = useRef<Sheet>(null);
  useLayoutEffect(() => {
    if (!ref.current) return;
    if (sheet.current?.on !== ref.current) sheet.current = moving(ref.current);
    const { current } = sheet;
    const follow = () => {
      const now = snareAt(editor.snapshot().doc.room ?? kept, view);
      moveSheet(current, ...along(now, snareAt(kept, view)));
    };
    follow();
    const soon = () => frames.end(follow);
    const leave = [editor.subscribe(soon), told?.subscribe(soon)];
    return () => {
      for (const one of leave) one?.();
      frames.drop(follow);
    };
  });
  return ref;
}
