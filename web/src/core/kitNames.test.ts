import { describe, expect, it } from "vitest";
import type { Layout } from "../api/types";
import { namePlaces } from "./kitNames";
import type { View } from "./view";

/** A pixel is a centimetre; the floor's origin lies in the middle of the paper. */
const view: View = {
  facing: "above",
  side: "drummer",
  middle: [0, 0],
  scale: 100,
  width: 400,
  height: 400,
};

const crash = { id: "crash", name: "Crash", centre_m: [0.5, 0.5, 1], diameter_m: 0.5 };
const kick = { id: "kick", name: "Kick", kind: "kick", batter_m: [0, 0, 0.3], diameter_m: 0.56 };

/** One that points down stands with its body over its capsule, 9 pixels to the foot of the paper. */
const mic = (x: number, y: number) => ({ id: "M", position_m: [x, y, 1.5], aim: [0, 0.001, -1] });

const layout = (drums: object[], cymbals: object[], mics: object[] = []) =>
  ({ kit: { drums, cymbals }, mics }) as unknown as Layout;

const placeOf = (shown: Layout, rest = shown, at = view) => namePlaces(shown, at, rest)[0]?.at;

describe("names on the kit", () => {
  it("stand at the foot of their disc", () => {
    expect(placeOf(layout([], [crash]))).toEqual([250, 150 + 25 * 0.62 - 4]);
  });

  it("keep from under a mic: beside it, on the side it is not", () => {
    const [left, right] = [mic(0.32, 0.45), mic(0.68, 0.45)].map((m) =>
      placeOf(layout([], [crash], [m])),
    );
    expect(left).toEqual([257, 150 + 25 * 0.62 - 4]);
    expect(right).toEqual([243, 150 + 25 * 0.62 - 4]);
  });

  it("go up where a mic is over the foot: to the middle, or to the head", () => {
    expect(placeOf(layout([], [crash], [mic(0.5, 0.42)]))).toEqual([250, 153.5]);
    expect(placeOf(layout([], [crash], [mic(0.5, 0.45)]))).toEqual([250, 133.5]);
  });

  it("stay at the foot where mics are everywhere", () => {
    const mics = [0.3, 0.4, 0.5, 0.6, 0.7].flatMap((x) =>
      [0.3, 0.4, 0.5, 0.6, 0.7, 0.8].map((y) => mic(x, y)),
    );
    expect(placeOf(layout([], [crash], mics))).toEqual([250, 150 + 25 * 0.62 - 4]);
  });

  it("of a kick stand at the drummer's right, or left where a mic is", () => {
    expect(placeOf(layout([kick], []))).toEqual([200 + 28 * 0.72, 210]);
    expect(placeOf(layout([kick], [], [mic(0.2, 0)]))).toEqual([200 - 28 * 0.72, 210]);
    const seen = placeOf(layout([kick], []), undefined, { ...view, side: "audience" });
    expect(seen).toEqual([200 - 28 * 0.72, 189]);
  });

  it("go along with a drum under the hand, and do not jump from one way to another", () => {
    const rest = layout([], [crash], [mic(0.68, 0.45)]);
    const away = layout([], [{ ...crash, centre_m: [0.9, 0.5, 1] }], rest.mics);
    expect(placeOf(away, rest)).toEqual([283, 150 + 25 * 0.62 - 4]);
  });

  it("are left out where the drum is too small, or another name stands already", () => {
    const small = { ...crash, diameter_m: 0.2 };
    expect(namePlaces(layout([], [small]), view)).toEqual([]);
    const same = [0, 1, 2, 3, 4, 5, 6].map((n) => ({ ...crash, id: `c${n}` }));
    const places = namePlaces(layout([], same), view);
    expect(places.length).toBeLessThan(7);
    expect(places[0]?.at).toEqual([250, 150 + 25 * 0.62 - 4]);
  });

  it("are told from above only", () => {
    expect(namePlaces(layout([], [crash]), { ...view, facing: "along" })).toEqual([]);
  });
});
