/** What of a drawing is shifted under a hand, and what is drawn anew. */
import { describe, expect, it } from "vitest";
import type { Cymbal, Drum, Layout, Mic } from "../api/types";
import { drawnOf, micGoes, partGoes, shiftsOf } from "./carry";
import { partAt, withPart } from "./kitParts";
import type { View } from "./view";

const floor = { id: "floor", batter_m: [0.5, 0, 0.6], diameter_m: 0.4, axis: [0, 0, 1] } as Drum;
const ride = { id: "ride", centre_m: [0.4, 0.5, 1], diameter_m: 0.5, axis: [0, 0, 1] } as Cymbal;
const mic = {
  id: "FT",
  position_m: [0.7, 0, 0.7],
  aim: [-0.6, 0, -0.8],
  locks: [],
} as never as Mic;
const still = {
  name: "Day one",
  kit: { name: "Kit", drums: [floor], cymbals: [ride] },
  mics: [mic],
} as unknown as Layout;
const view = (facing: View["facing"], side: View["side"] = "drummer"): View => ({
  facing,
  side,
  middle: [0, 0],
  scale: 100,
  width: 400,
  height: 400,
});
const withMic = (change: Partial<Mic>): Layout => ({ ...still, mics: [{ ...mic, ...change }] });

describe("what is drawn under a hand", () => {
  const carried = withPart(still, partAt(floor, [0.6, 0.2, 0.6]));

  it("is what stood there before, as long as all that differs stands elsewhere", () => {
    expect(drawnOf(still, still, "above")).toBe(still);
    expect(drawnOf(carried, still, "above")).toBe(still);
    const along = { ...carried, mics: withMic({ position_m: [0.8, 0.2, 0.7] }).mics };
    expect(drawnOf(along, still, "along")).toBe(still);
    const taped = { ...carried, kit: { ...carried.kit, drawn: [], readings: [] } };
    expect(drawnOf(taped, still, "above")).toBe(still);
  });

  it("goes by what stood there, also for the same place of the hand", () => {
    expect(drawnOf(carried, still, "above")).toBe(still);
    const other = { ...still, name: "Day two" };
    expect(drawnOf(carried, other, "above")).toBe(carried);
    expect(drawnOf(carried, still, "above")).toBe(still);
  });

  it("is drawn anew where more is another", () => {
    const wider = withPart(still, { ...floor, diameter_m: 0.45 });
    const turned = withMic({ aim: [0, 0, -1] });
    const held = withMic({ locks: ["position"] } as never);
    const renamed = { ...carried, name: "Day two" };
    const fewer = { ...carried, mics: [] };
    for (const doc of [wider, turned, held, renamed, fewer])
      expect(drawnOf(doc, still, "above")).toBe(doc);
  });

  it("takes an aim for the same that differs in its last digit", () => {
    const doc = withMic({ position_m: [0.8, 0, 0.7], aim: [-0.6000000000000001, 0, -0.8] });
    expect(drawnOf(doc, still, "above")).toBe(still);
  });

  it("is drawn anew as a cymbal is lifted: its stand grows, which is not seen from above", () => {
    const lifted = withPart(still, partAt(ride, [0.4, 0.6, 1.1]));
    expect(drawnOf(lifted, still, "along")).toBe(lifted);
    expect(drawnOf(lifted, still, "side")).toBe(lifted);
    expect(drawnOf(lifted, still, "above")).toBe(still);
    const aside = withPart(still, partAt(ride, [0.5, 0.5, 1]));
    expect(drawnOf(aside, still, "along")).toBe(still);
    const drum = withPart(still, partAt(floor, [0.5, 0, 0.7]));
    expect(drawnOf(drum, still, "along")).toBe(still);
  });
});

describe("how far it is shifted", () => {
  const shift = (doc: Layout, name: string, seen: View) => {
    const [x = Number.NaN, y = Number.NaN] = shiftsOf(still, doc, seen).get(name) ?? [];
    return [Math.round(x * 1e6) / 1e6, Math.round(y * 1e6) / 1e6];
  };
  const ahead = withPart(still, partAt(floor, [0.6, 0.2, 0.6]));

  it("goes right and up the paper as a drum goes right and ahead, seen by the drummer", () => {
    expect(shift(ahead, partGoes("floor"), view("above"))).toEqual([10, -20]);
    expect(shift(ahead, partGoes("floor"), view("above", "audience"))).toEqual([-10, 20]);
  });

  it("goes up the paper as it is lifted, seen from behind", () => {
    const lifted = withPart(still, partAt(floor, [0.5, 0.3, 0.7]));
    expect(shift(lifted, partGoes("floor"), view("along"))).toEqual([0, -10]);
  });

  it("takes a mic along, and leaves what stands out", () => {
    const doc = withMic({ position_m: [0.6, 0, 0.7] });
    expect(shift(doc, micGoes("FT"), view("above"))).toEqual([-10, 0]);
    expect([...shiftsOf(still, doc, view("above")).keys()]).toEqual([micGoes("FT")]);
    expect(shiftsOf(still, still, view("above")).size).toBe(0);
  });
});
