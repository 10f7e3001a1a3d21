/** Mics that lie off the drawing: plates along its border, each toward where its mic is. */
import type { Point2, View } from "./view";

export interface Away {
  id: string;
  /** Where the mic would be on the paper. */
  at: Point2;
  wide: number;
}

export interface OnEdge {
  id: string;
  at: Point2;
  wide: number;
  /** Which way its mic lies, degrees on the paper. */
  turn: number;
}

type SideOf = "top" | "bottom" | "left" | "right";

/** A mic nearer to the border than this is off the drawing: its teardrop would be cut. */
const INSET = 6;
const HIGH = 22;
const GAP = 4;

export const isAway = ([x, y]: Point2, v: View) =>
  x < INSET || y < INSET || x > v.width - INSET || y > v.height - INSET;

/** A teardrop is so long. */
const BODY = 18;

/** The plates at the border; what would lie under one of them stands there as well. */
export function onEdges(every: Away[], v: View): OnEdge[] {
  const off = new Set(every.filter((a) => isAway(a.at, v)).map((a) => a.id));
  for (;;) {
    const placed = edgePlaces(
      every.filter((a) => off.has(a.id)),
      v,
    );
    const under = every.filter(
      (a) =>
        !off.has(a.id) &&
        placed.some(
          (p) =>
            Math.abs(p.at[0] - a.at[0]) < p.wide / 2 + BODY &&
            Math.abs(p.at[1] - a.at[1]) < HIGH / 2 + BODY,
        ),
    );
    if (!under.length) return placed;
    for (const a of under) off.add(a.id);
  }
}

/** The side of the paper on the way from its middle, and how far along that side. */
function sideOf([x, y]: Point2, v: View): { side: SideOf; along: number } {
  const [dx, dy] = [x - v.width / 2, y - v.height / 2];
  const [sx, sy] = [Math.abs(dx) / (v.width / 2), Math.abs(dy) / (v.height / 2)];
  if (sy >= sx)
    return { side: dy < 0 ? "top" : "bottom", along: v.width / 2 + dx / Math.max(sy, 1e-9) };
  return { side: dx < 0 ? "left" : "right", along: v.height / 2 + dy / Math.max(sx, 1e-9) };
}

/** Places along a line of a length, in order, none over another; rows further in where it is full. */
function spread(rows: { along: number; size: number }[], length: number): [number, number][] {
  const out: [number, number][] = rows.map(() => [0, 0]);
  const order = rows.map((_, i) => i).sort((a, b) => (rows[a]?.along ?? 0) - (rows[b]?.along ?? 0));
  let row = 0;
  let left = [...order];
  while (left.length) {
    const taken: number[] = [];
    let used = 0;
    for (const i of left) {
      const size = rows[i]?.size ?? 0;
      if (used + size > length && taken.length) continue;
      used += size;
      taken.push(i);
    }
    let end = 0;
    for (const [n, i] of taken.entries()) {
      const size = rows[i]?.size ?? 0;
      const after = taken.slice(n).reduce((sum, k) => sum + (rows[k]?.size ?? 0), 0);
      const wished = (rows[i]?.along ?? 0) - size / 2;
      const start = Math.min(Math.max(end, wished), Math.max(end, length - after));
      out[i] = [start + size / 2, row];
      end = start + size;
    }
    left = left.filter((i) => !taken.includes(i));
    row++;
  }
  return out;
}

/** A plate for each, along the side its mic lies off. */
export function edgePlaces(away: Away[], v: View): OnEdge[] {
  const sided = away.map((a) => ({ ...a, ...sideOf(a.at, v) }));
  return (["top", "bottom", "left", "right"] as const).flatMap((side) => {
    const here = sided.filter((a) => a.side === side);
    const level = side === "top" || side === "bottom";
    const rows = here.map((a) => ({ along: a.along, size: level ? a.wide + GAP : HIGH }));
    // The corners are left to the sides that are level.
    const length = level ? v.width : v.height - 4 * HIGH;
    const shift = level ? 0 : 2 * HIGH;
    const placed = spread(
      rows.map((r) => ({ ...r, along: r.along - shift })),
      length,
    );
    return here.map((a, i) => {
      const [along, row] = placed[i] as [number, number];
      const deep = level ? HIGH / 2 + 2 + row * HIGH : a.wide / 2 + 4 + row * (a.wide + GAP);
      const at: Point2 = {
        top: [along, deep] as Point2,
        bottom: [along, v.height - deep] as Point2,
        left: [deep, along + shift] as Point2,
        right: [v.width - deep, along + shift] as Point2,
      }[side];
      const turn = (Math.atan2(a.at[1] - at[1], a.at[0] - at[0]) * 180) / Math.PI;
      return { id: a.id, at, wide: a.wide, turn };
    });
  });
}
