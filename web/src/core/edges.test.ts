import { describe, expect, it } from "vitest";
import { edgePlaces, isAway, onEdges } from "./edges";
import type { Point2, View } from "./view";

const view: View = {
  facing: "above",
  side: "drummer",
  middle: [0, 0],
  scale: 100,
  width: 500,
  height: 400,
};
const away = (id: string, at: Point2) => ({ id, at, wide: 44 });

describe("plates on the border", () => {
  it("knows what is off the drawing", () => {
    expect(isAway([250, -40], view)).toBe(true);
    expect(isAway([3, 200], view)).toBe(true);
    expect(isAway([250, 200], view)).toBe(false);
  });

  it("stand on the side their mic lies off, pointing to it", () => {
    const places = edgePlaces(
      [
        away("T", [260, -300]),
        away("B", [240, 900]),
        away("L", [-500, 210]),
        away("R", [900, 190]),
      ],
      view,
    );
    const [t, b, l, r] = ["T", "B", "L", "R"].map((id) => places.find((p) => p.id === id));
    expect(t?.at[1]).toBeLessThan(20);
    expect(b?.at[1]).toBeGreaterThan(380);
    expect(l?.at[0]).toBeLessThan(40);
    expect(r?.at[0]).toBeGreaterThan(460);
    expect(t?.turn).toBeGreaterThan(-92);
    expect(t?.turn).toBeLessThan(-86);
    expect(Math.abs(Math.round(l?.turn ?? 0))).toBeGreaterThan(170);
    expect(t?.at[0]).toBeGreaterThan(b?.at[0] ?? 0);
  });

  it("take along what would lie under them", () => {
    const mics = [away("A", [250, -80]), away("B", [255, 20]), away("C", [250, 200])];
    expect(onEdges(mics, view).map((p) => p.id)).toEqual(["A", "B"]);
  });

  it("never lie over each other, however many there are", () => {
    const many = Array.from({ length: 30 }, (_, i) => away(`M${i}`, [250 + i, -100 - 10 * i]));
    const places = edgePlaces(many, view);
    expect(places).toHaveLength(30);
    for (const [i, p] of places.entries()) {
      expect(p.at[0]).toBeGreaterThanOrEqual(22);
      expect(p.at[0]).toBeLessThanOrEqual(478);
      for (const q of places.slice(i + 1))
        expect(Math.abs(p.at[0] - q.at[0]) >= 44 || Math.abs(p.at[1] - q.at[1]) >= 19).toBe(true);
    }
  });
});
