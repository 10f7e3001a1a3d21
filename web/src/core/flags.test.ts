import { describe, expect, it } from "vitest";
import { flagged, roomyStep } from "./flags";

const spot = (id: string, x: number, wide = 40) => ({ id, x, wide });

describe("flags of a tape", () => {
  it("take a lane each while there is one", () => {
    const flags = flagged([spot("A", 0), spot("B", 10), spot("C", 20), spot("D", 60)], 3);
    expect(flags.map((f) => [f.spots[0]?.id, f.lane])).toEqual([
      ["A", 0],
      ["B", 1],
      ["C", 2],
      ["D", 0],
    ]);
  });

  it("make a bunch where they crowd, and nothing covers anything", () => {
    const many = Array.from({ length: 40 }, (_, i) => spot(`M${i}`, (i * i) % 97));
    const flags = flagged(many, 3);
    expect(flags.flatMap((f) => f.spots)).toHaveLength(40);
    for (const [i, a] of flags.entries())
      for (const b of flags.slice(i + 1))
        if (a.lane === b.lane)
          expect(Math.abs(a.x - b.x)).toBeGreaterThanOrEqual((a.wide + b.wide) / 2);
  });

  it("never bunch what is lit", () => {
    const many = Array.from({ length: 12 }, (_, i) => spot(`M${i}`, i));
    const own = flagged(many, 3, ["M7"]).find((f) => f.spots.some((s) => s.id === "M7"));
    expect(own?.spots).toHaveLength(1);
  });

  it("names so many marks that no name meets the next", () => {
    expect(roomyStep(0.2, 150, 28)).toBeCloseTo(0.2);
    expect(roomyStep(0.2, 60, 28)).toBeCloseTo(1);
    expect(roomyStep(0.001, 20, 30)).toBeCloseTo(0.1);
  });
});
