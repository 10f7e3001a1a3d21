/** Where a mic is on a drawing, and how it is turned there. */
import type { Mic } from "../api/types";
import { type Point2, type Point3, toScreen, type View } from "./view";

/** A place some way ahead of a mic. */
export function ahead(mic: Mic, by: number): Point3 {
  const [p, a] = [mic.position_m, mic.aim];
  return [p[0] + a[0] * by, p[1] + a[1] * by, p[2] + a[2] * by];
}

export interface Pose {
  at: Point2;
  /** Degrees on the paper, clockwise from the right. */
  turn: number;
  /** How much of its length is seen: 1 across the view, 0 along it. */
  along: number;
}

/** Where a mic stands in a view, how it is turned there, and how much of its length is seen. */
export function poseOf(mic: Mic, view: View): Pose {
  const at = toScreen(mic.position_m, view);
  const front = toScreen(ahead(mic, 1), view);
  return {
    at,
    turn: (Math.atan2(front[1] - at[1], front[0] - at[0]) * 180) / Math.PI,
    along: Math.hypot(front[0] - at[0], front[1] - at[1]) / view.scale,
  };
}

const BODY_BEHIND = 9;

/** The middle of the teardrop, which lies behind its point, and which way that points. */
export function bodyOf(mic: Mic, view: View): { body: Point2; toward: Point2 } {
  const at = toScreen(mic.position_m, view);
  const front = toScreen(ahead(mic, 0.1), view);
  const [dx, dy] = [front[0] - at[0], front[1] - at[1]];
  const n = Math.hypot(dx, dy) || 1;
  const toward: Point2 = [dx / n, dy / n];
  return { body: [at[0] - toward[0] * BODY_BEHIND, at[1] - toward[1] * BODY_BEHIND], toward };
}
