/** Flags on a tape: each in a lane of its own, and those that crowd in a bunch. */
export interface Spot {
  id: string;
  x: number;
  wide: number;
}

export interface Flagged<S extends Spot> {
  /** One, or several that have no room of their own. */
  spots: S[];
  x: number;
  wide: number;
  lane: number;
}

const GAP = 2;
/** Two digits and a cross. */
export const BUNCH_WIDE = 30;

const meets = (a: { x: number; wide: number }, b: { x: number; wide: number }) =>
  Math.abs(a.x - b.x) < (a.wide + b.wide) / 2 + GAP;

/**
 * Every flag takes the first lane that is free where it is; those that are lit go first and are
 * never bunched. What finds no lane joins the nearest that it would cover.
 */
export function flagged<S extends Spot>(
  spots: readonly S[],
  lanes: number,
  lit: readonly string[] = [],
): Flagged<S>[] {
  const out: Flagged<S>[] = [];
  const first = (s: S) => (lit.includes(s.id) ? 0 : 1);
  const order = [...spots].sort((a, b) => first(a) - first(b) || a.x - b.x);
  for (const spot of order) {
    const lane = Array.from({ length: lanes }, (_, n) => n).find(
      (n) => !out.some((f) => f.lane === n && meets(f, spot)),
    );
    if (lane !== undefined) {
      out.push({ spots: [spot], x: spot.x, wide: spot.wide, lane });
      continue;
    }
    const near = out
      .filter((f) => !f.spots.some((s) => lit.includes(s.id)))
      .sort((a, b) => Math.abs(a.x - spot.x) - Math.abs(b.x - spot.x))[0];
    if (!near) out.push({ spots: [spot], x: spot.x, wide: spot.wide, lane: 0 });
    else {
      near.spots.push(spot);
      near.wide = Math.min(near.wide, BUNCH_WIDE);
    }
  }
  return out;
}

/** A step of a scale that leaves each name its room: the first of these many that does. */
export function roomyStep(step: number, scale: number, wide: number): number {
  const times = [1, 2, 5, 10, 20, 50].find((n) => step * n * scale >= wide);
  return step * (times ?? 100);
}
