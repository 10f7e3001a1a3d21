import { describe, expect, it } from "vitest";
import { nudged, stepOf, stepsIn, stridesIn, type Way, wallWords, wayWords } from "./nudge";
import type { Point3 } from "./view";

const HERE: Point3 = [0.2, 0.3, 1.5];

describe("a step of a thumb", () => {
  it.each([
    ["left", [0.19, 0.3, 1.5], "To the drummer's left"],
    ["right", [0.21, 0.3, 1.5], "To the drummer's right"],
    ["up", [0.2, 0.31, 1.5], "Toward the audience"],
    ["down", [0.2, 0.29, 1.5], "Away from the audience"],
    ["higher", [0.2, 0.3, 1.51], "Higher"],
    ["lower", [0.2, 0.3, 1.49], "Lower"],
  ] as const)("goes %s as the drummer sees it", (way, there, words) => {
    nudged(HERE, way, 0.01, "drummer").forEach((v, i) => {
      expect(v).toBeCloseTo(there[i] as number, 9);
    });
    expect(wayWords(way, "drummer")).toBe(words);
  });

  it("goes the other way on the floor where the audience looks, and the same in height", () => {
    const pairs: [Way, Way][] = [
      ["left", "right"],
      ["up", "down"],
      ["higher", "higher"],
    ];
    for (const [seen, is] of pairs) {
      expect(nudged(HERE, seen, 0.1, "audience")).toEqual(nudged(HERE, is, 0.1, "drummer"));
      expect(wayWords(seen, "audience")).toBe(wayWords(is, "drummer"));
    }
  });

  it("ends at the floor", () => {
    expect(nudged([0, 0, 0.004], "lower", 0.01, "drummer")[2]).toBe(0);
  });

  it("is an eighth of an inch, an inch or four for whoever reads those", () => {
    const hand = { two_fingers_m: 0, three_fingers_m: 0, hand_m: 0, fist_m: 0, card_m: 0 };
    expect(stepsIn({ units: "ft-in", hand }).map(([m]) => m)).toEqual([0.003175, 0.0254, 0.1016]);
    for (const units of ["cm", "hand"] as const)
      expect(stepsIn({ units, hand }).map(([m]) => m)).toEqual([0.001, 0.01, 0.1]);
  });

  it("is a centimetre, a hand or half a metre where a kit is carried through its room", () => {
    const hand = { two_fingers_m: 0, three_fingers_m: 0, hand_m: 0, fist_m: 0, card_m: 0 };
    expect(stridesIn({ units: "cm", hand })).toEqual([
      [0.01, "1 cm"],
      [0.1, "10 cm"],
      [0.5, "50 cm"],
    ]);
    const feet = stridesIn({ units: "ft-in", hand });
    expect(feet.map(([m, words]) => [Math.round(m / 0.0254), words])).toEqual([
      [1, "1 in"],
      [4, "4 in"],
      [24, "2 ft"],
    ]);
  });

  it.each([
    ["left", [-0.5, 0], "Toward the left wall"],
    ["right", [0.5, 0], "Toward the right wall"],
    ["up", [0, 0.5], "Toward the front wall"],
    ["down", [0, -0.5], "Toward the back wall"],
  ] as const)("goes %s along the walls of a room", (way, there, words) => {
    const [x, y] = stepOf(way, 0.5, "drummer");
    expect([x + 0, y + 0]).toEqual(there);
    expect(wallWords(way)).toBe(words);
  });
});
