/** What of a kit's drawing is shifted under a hand, and what is drawn anew. */
import { describe, expect, it } from "vitest";
import type { Cymbal, Drum, Kit } from "../api/types";
import { carried, partAt } from "./kitParts";
import type { View } from "./view";

const drum = { id: "floor", batter_m: [0.5, 0, 0.6], diameter_m: 0.4, axis: [0, 0, 1] } as Drum;
const ride = { id: "ride", centre_m: [0.4, 0.5, 1], diameter_m: 0.5, axis: [0, 0, 1] } as Cymbal;
const still = { kit: { drums: [drum], cymbals: [ride] } as unknown as Kit };
const view = (facing: View["facing"]): View => ({
  facing,
  side: "drummer",
  middle: [0, 0],
  scale: 100,
  width: 400,
  height: 400,
});

describe("a part under a hand", () => {
  it("stays as it is while nobody holds it", () => {
    expect(carried(drum, still, view("above"))).toEqual({ drawn: drum, shift: undefined });
  });

  it("is its old drawing, to the right and up the paper as it goes right and ahead", () => {
    const now = partAt(drum, [0.6, 0.2, 0.6]) as Drum;
    const { drawn, shift } = carried(now, still, view("above"));
    expect(drawn).toBe(drum);
    const [x, y] = (shift ?? "").match(/-?[\d.]+/g)?.map(Number) ?? [];
    expect(x).toBeCloseTo(10);
    expect(y).toBeCloseTo(-20);
  });

  it("goes up the paper as it is lifted, seen from behind", () => {
    const { shift } = carried(partAt(drum, [0.5, 0, 0.7]), still, view("along"));
    const [x, y] = (shift ?? "").match(/-?[\d.]+/g)?.map(Number) ?? [];
    expect(x).toBeCloseTo(0);
    expect(y).toBeCloseTo(-10);
  });

  it("is drawn anew where more of it is another, or where it was not there before", () => {
    const wider = { ...(partAt(drum, [0.6, 0.2, 0.6]) as Drum), diameter_m: 0.45 };
    expect(carried(wider, still, view("above"))).toEqual({ drawn: wider, shift: undefined });
    const other = { ...drum, id: "rack" };
    expect(carried(other, still, view("above")).drawn).toBe(other);
  });

  it("is drawn anew as a cymbal is lifted: its stand grows; seen from above it is shifted", () => {
    const lifted = partAt(ride, [0.4, 0.6, 1.1]);
    expect(carried(lifted, still, view("along")).drawn).toBe(lifted);
    expect(carried(lifted, still, view("above")).drawn).toBe(ride);
    expect(carried(partAt(ride, [0.5, 0.5, 1]), still, view("along")).drawn).toBe(ride);
  });
});
