/** From which side a stereo pair's left and right are named. */
import type { Layout } from "../api/types";
import { micOf } from "./edits";
import type { Side } from "./view";

/** Nearer to each other than this two mics have no left and right of their own. */
const APART_M = 0.05;

/** The first pair that is named from the other side than a drawing is seen from; null where none is. */
export function namedFromOther(layout: Layout, side: Side) {
  for (const pair of layout.stereo_pairs ?? []) {
    const [left, right] = [micOf(layout, pair.left), micOf(layout, pair.right)];
    if (!left || !right || pair.coding === "mid-side") continue;
    const gap = right.position_m[0] - left.position_m[0];
    if (Math.abs(gap) < APART_M) continue;
    const from: Side = gap > 0 ? "drummer" : "audience";
    if (from !== side) return { left: left.id, right: right.id, from };
  }
  return null;
}
