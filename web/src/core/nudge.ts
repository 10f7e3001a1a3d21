/** Steps of a thumb where there are no arrow keys: which ways there are, and how large. */
import type { Ruler } from "./units";
import type { Point3, Side } from "./view";

/** As it is drawn on the plan from above, and in height. */
export type Way = "left" | "up" | "down" | "right" | "higher" | "lower";

const WAYS: Record<Way, Point3> = {
  left: [-1, 0, 0],
  right: [1, 0, 0],
  up: [0, 1, 0],
  down: [0, -1, 0],
  higher: [0, 0, 1],
  lower: [0, 0, -1],
};

const INCH_M = 0.0254;
const CENTIMETRES = [
  [0.001, "1 mm"],
  [0.01, "1 cm"],
  [0.1, "10 cm"],
] as const;
const INCHES = [
  [INCH_M / 8, "⅛ in"],
  [INCH_M, "1 in"],
  [4 * INCH_M, "4 in"],
] as const;

/** Fine, usual and coarse: metres, and what they are called. */
export const stepsIn = (ruler: Ruler) => (ruler.units === "ft-in" ? INCHES : CENTIMETRES);

/** Where a place comes to, by one step seen from a side; nothing goes under the floor. */
export function nudged(from: Point3, way: Way, by: number, side: Side): Point3 {
  const turn = side === "drummer" ? 1 : -1;
  const [x, y, z] = WAYS[way];
  return [from[0] + turn * x * by, from[1] + turn * y * by, Math.max(0, from[2] + z * by)];
}

/** The same way for somebody who does not see the plan. */
export function wayWords(way: Way, side: Side): string {
  if (way === "higher" || way === "lower") return way === "higher" ? "Higher" : "Lower";
  const [x, y] = WAYS[way].map((v) => v * (side === "drummer" ? 1 : -1)) as [number, number];
  if (x) return x < 0 ? "To the drummer's left" : "To the drummer's right";
  return y > 0 ? "Toward the audience" : "Away from the audience";
}
