/** Projections: there and back, and shapes that only a drawing needs. */
import { describe, expect, it } from "vitest";
import {
  axisOf,
  disc,
  type Facing,
  fitted,
  leanOf,
  moved,
  outline,
  type Point2,
  type Point3,
  placeTags,
  pulled,
  runs,
  type Side,
  toScreen,
  type View,
  zoomed,
} from "./view";

const base: View = {
  facing: "above",
  side: "drummer",
  middle: [0.2, 0.1],
  scale: 200,
  width: 500,
  height: 400,
};
const every = (["above", "along", "side"] as Facing[]).flatMap((facing) =>
  (["drummer", "audience"] as Side[]).map((side) => ({ ...base, facing, side })),
);

describe("a paper that is pulled", () => {
  /** What lies under a pixel of the paper, metres along and up it. */
  const under = (v: View, [x, y]: Point2) => [
    v.middle[0] + (x - v.width / 2) / v.scale,
    v.middle[1] - (y - v.height / 2) / v.scale,
  ];

  it.each([
    ["one finger", [[100, 80]], [[130, 60]], 200],
    [
      "two fingers that spread",
      [
        [100, 200],
        [200, 200],
      ],
      [
        [90, 190],
        [290, 190],
      ],
      400,
    ],
    [
      "two fingers that close",
      [
        [100, 100],
        [300, 300],
      ],
      [
        [150, 160],
        [250, 260],
      ],
      100,
    ],
  ] as [string, Point2[], Point2[], number][])("stays under %s", (_, from, to, scale) => {
    const now = pulled(base, from, to);
    expect(now.scale).toBeCloseTo(scale, 9);
    to.forEach((at, i) => {
      const [x, y] = under(now, at);
      const [was, high] = under(base, from[i] as Point2);
      expect(x).toBeCloseTo(was as number, 9);
      expect(y).toBeCloseTo(high as number, 9);
    });
  });
});

describe("views", () => {
  it.each(every)("a hand's pixels move the point by the same pixels: $facing, $side", (v) => {
    const p: Point3 = [0.3, -0.2, 1.1];
    const from = toScreen(p, v);
    const to = toScreen(moved(p, 30, -12, v), v);
    expect(to[0] - from[0]).toBeCloseTo(30, 9);
    expect(to[1] - from[1]).toBeCloseTo(-12, 9);
  });

  it("the drummer sits at the foot and right is right", () => {
    expect(toScreen([1, 0, 0], base)[0]).toBeGreaterThan(toScreen([0, 0, 0], base)[0]);
    expect(toScreen([0, 1, 0], base)[1]).toBeLessThan(toScreen([0, 0, 0], base)[1]);
    const audience = { ...base, side: "audience" as const };
    expect(toScreen([1, 0, 0], audience)[0]).toBeLessThan(toScreen([0, 0, 0], audience)[0]);
  });

  it("a mic is never dragged below the floor", () => {
    expect(moved([0, 0, 0.1], 0, 500, { ...base, facing: "along" })[2]).toBe(0);
  });

  it.each(every)("a fitted view holds every point: $facing, $side", (v) => {
    const points: Point3[] = [
      [-1, -1, 0],
      [1.5, 2, 2],
      [0.3, 0.1, 1],
    ];
    const fit = fitted(points, v);
    for (const p of points) {
      const [x, y] = toScreen(p, fit);
      expect(x).toBeGreaterThanOrEqual(33.9);
      expect(x).toBeLessThanOrEqual(fit.width - 33.9);
      expect(y).toBeGreaterThanOrEqual(33.9);
      expect(y).toBeLessThanOrEqual(fit.height - 33.9);
    }
  });

  it("zooming keeps the place under the pointer", () => {
    const p: Point3 = [0.5, 0.4, 0];
    const at = toScreen(p, base);
    const [x, y] = toScreen(p, zoomed(base, 1.7, at));
    expect(x).toBeCloseTo(at[0], 9);
    expect(y).toBeCloseTo(at[1], 9);
  });

  it("a disc keeps its radius and its plane", () => {
    for (const p of disc([0, 0, 1], [0, -0.6, 0.8], 0.3)) {
      expect(Math.hypot(p[0], p[1], p[2] - 1)).toBeCloseTo(0.3, 9);
      expect(-0.6 * p[1] + 0.8 * (p[2] - 1)).toBeCloseTo(0, 9);
    }
  });

  it("an outline drops what lies inside", () => {
    const square: Point2[] = [
      [0, 0],
      [4, 0],
      [4, 4],
      [0, 4],
      [2, 2],
      [1, 3],
    ];
    expect(outline(square)).toHaveLength(4);
  });

  it("runs share their ends, so that a dashed ring has no gaps", () => {
    expect(runs([true, true, false, false, true])).toEqual([
      { from: 0, to: 1, on: true },
      { from: 1, to: 4, on: false },
    ]);
  });

  it("a plate covers neither its own mic nor another's", () => {
    const tags = [0, 1, 2].map((i) => ({
      id: `M${i}`,
      at: [200 + i * 26, 200] as Point2,
      body: [200 + i * 26, 191] as Point2,
      avoid: [0, 1] as Point2,
      wide: 34,
    }));
    for (const p of placeTags(tags, base).values())
      for (const { body } of tags)
        expect(Math.abs(p[0] - body[0]) >= 17 + 8 || Math.abs(p[1] - body[1]) >= 17).toBe(true);
  });

  it("plates of mics at one place fan out", () => {
    const tags = ["A", "B", "C", "D"].map((id) => ({
      id,
      at: [200, 200] as Point2,
      body: [196, 200] as Point2,
      avoid: [1, 0] as Point2,
      wide: 34,
    }));
    const spots = [...placeTags(tags, base).values()];
    for (const [i, p] of spots.entries())
      for (const q of spots.slice(i + 1))
        expect(Math.abs(p[0] - q[0]) >= 34 || Math.abs(p[1] - q[1]) >= 19).toBe(true);
  });
});

describe("leaning axes", () => {
  it.each([
    [0, 0, [0, 0, 1]],
    [90, 0, [0, -1, 0]],
    [90, 90, [1, 0, 0]],
    [45, 180, [0, Math.SQRT1_2, Math.SQRT1_2]],
  ] as const)("tilt %s, turn %s", (tilt, turn, axis) => {
    const made = axisOf(tilt, turn);
    axis.forEach((v, i) => {
      expect(made[i]).toBeCloseTo(v, 5);
    });
    expect(leanOf(made).tilt).toBeCloseTo(tilt, 4);
    if (tilt) expect(leanOf(made).turn).toBeCloseTo(turn, 4);
  });
});
