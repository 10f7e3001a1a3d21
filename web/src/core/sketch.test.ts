import { readFileSync } from "node:fs";
import { describe, expect, it } from "vitest";
import type { Layout } from "../api/types";
import { boxOf, sketchOf } from "./sketch";

const file = new URL("../../../demo/b-turned-pair.layout.json", import.meta.url);
const layout: Layout = JSON.parse(readFileSync(file, "utf8"));

describe("a sketch", () => {
  it("has every drum, cymbal and mic where the layout has them", () => {
    const drawn = sketchOf(layout);
    expect(drawn.drums.length).toBe(layout.kit.drums.length);
    expect(drawn.cymbals.length).toBe(layout.kit.cymbals?.length);
    expect(drawn.mics.map((m) => m.id)).toEqual(layout.mics.map((m) => m.id));
    expect(drawn.mics[0]?.x).toBe(layout.mics[0]?.position_m[0]);
  });

  it("grows its frame to the mic farthest off, and is never smaller than the kit", () => {
    const drawn = sketchOf(layout);
    const near = boxOf({ ...drawn, mics: [] });
    expect(near).toEqual([-0.8, -0.95, 2.1, 0.95 + 0.67]);
    const far = boxOf({ ...drawn, mics: [{ id: "RM", x: 0.3, y: 4, role: "room" }] });
    expect(far[1]).toBeCloseTo(-4.15);
    expect(far[3]).toBeCloseTo(4.15 + 0.67);
  });
});
