/** Names right beside small things on a drawing, out of each other's way where those stand close. */
import { meet, type Point2, type Taken } from "./view";

export interface Named {
  id: string;
  at: Point2;
  /** The middle of what is drawn of it: of two at one point that tells whose name is whose. */
  body: Point2;
  /** Of its name, pixels. */
  wide: number;
}

const HIGH = 11;
const OFF = 10;

/** Right of it if that is free, else left, below, above, and last at its corners. */
const WAYS: readonly Point2[] = [
  [1, 0],
  [-1, 0],
  [0, 1],
  [0, -1],
  [1, 1],
  [-1, 1],
  [1, -1],
  [-1, -1],
];

/** The middle of each name. Those that come first have the first choice. */
export function namesBeside(things: readonly Named[]): Map<string, Point2> {
  const places = new Map<string, Point2>();
  const done: Taken[] = [];
  const dots = things.map(({ body }): Taken => ({ at: body, wide: OFF, high: OFF }));
  for (const [i, { id, at, wide }] of things.entries()) {
    const inTheWay = (place: Point2) => {
      const name = { at: place, wide, high: HIGH };
      const onDots = dots.filter((dot, j) => j !== i && meet(name, dot)).length;
      return onDots + 2 * done.filter((other) => meet(name, other, 1)).length;
    };
    let best: Point2 = at;
    let least = Number.POSITIVE_INFINITY;
    for (const [x, y] of WAYS) {
      const place: Point2 = [at[0] + x * (OFF + wide / 2), at[1] + y * (x ? HIGH + 2 : OFF + 6)];
      const cost = inTheWay(place);
      if (cost < least) [best, least] = [place, cost];
    }
    places.set(id, best);
    done.push({ at: best, wide, high: HIGH });
  }
  return places;
}
