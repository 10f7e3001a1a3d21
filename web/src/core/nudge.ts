/** Steps of a thumb where there are no arrow keys: which ways there are, and how large. */
import type { Ruler } from "./units";
import type { Point3, Side } from "./view";

/** As the arrows lie on a plan. */
export type Arrow = "left" | "up" | "down" | "right";

/** As it is drawn on the plan from above, and in height. */
export type Way = Arrow | "higher" | "lower";

const WAYS: Record<Way, Point3> = {
  left: [-1, 0, 0],
  right: [1, 0, 0],
  up: [0, 1, 0],
  down: [0, -1, 0],
  higher: [0, 0, 1],
  lower: [0, 0, -1],
};

/** Metres, and what they are called. */
export type Step = readonly [metres: number, words: string];

const INCH_M = 0.0254;
const CENTIMETRES: readonly Step[] = [
  [0.001, "1 mm"],
  [0.01, "1 cm"],
  [0.1, "10 cm"],
];
const INCHES: readonly Step[] = [
  [INCH_M / 8, "⅛ in"],
  [INCH_M, "1 in"],
  [4 * INCH_M, "4 in"],
];
/** In a room: half a metre is heard on the kick (common practice). */
const STRIDES: readonly Step[] = [
  [0.01, "1 cm"],
  [0.1, "10 cm"],
  [0.5, "50 cm"],
];
const FEET: readonly Step[] = [
  [INCH_M, "1 in"],
  [4 * INCH_M, "4 in"],
  [24 * INCH_M, "2 ft"],
];

/** Fine, usual and coarse. */
export const stepsIn = (ruler: Ruler) => (ruler.units === "ft-in" ? INCHES : CENTIMETRES);

/** The same for what is carried through a room. */
export const stridesIn = (ruler: Ruler) => (ruler.units === "ft-in" ? FEET : STRIDES);

/** One step, from the drummer's seat, as it is seen from a side. */
export function stepOf(way: Way, by: number, side: Side): Point3 {
  const turn = side === "drummer" ? by : -by;
  const [x, y, z] = WAYS[way];
  return [x * turn, y * turn, z * by];
}

/** Where a place comes to by a step; nothing goes under the floor. */
export function nudged(from: Point3, way: Way, by: number, side: Side): Point3 {
  const [x, y, z] = stepOf(way, by, side);
  return [from[0] + x, from[1] + y, Math.max(0, from[2] + z)];
}

/** The same way for somebody who does not see the plan. */
export function wayWords(way: Way, side: Side): string {
  if (way === "higher" || way === "lower") return way === "higher" ? "Higher" : "Lower";
  const [x, y] = stepOf(way, 1, side);
  if (x) return x < 0 ? "To the drummer's left" : "To the drummer's right";
  return y > 0 ? "Toward the audience" : "Away from the audience";
}

/** The plan of a room is always seen from its back wall. */
const WALLS: Record<Arrow, string> = { left: "left", right: "right", up: "front", down: "back" };

export const wallWords = (way: Arrow) => `Toward the ${WALLS[way]} wall`;
