import { describe, expect, it } from "vitest";
import type { Plan } from "../api/types";
import { mixed, PARTS, partsIn, piecesOf } from "./mix";

const plan = (...slots: string[]) =>
  ({
    pieces: slots.map((slot) => ({ slot, technique: `${slot}!`, target: null, numbers: {} })),
  }) as unknown as Plan;
const A = plan("picture", "kick", "snare", "toms", "toms", "room-pair");
const B = plan("picture", "kick", "kick-two", "room-mono", "far");

describe("a mix of plans", () => {
  it("is the first plan, part after part, while nothing is picked", () => {
    expect(mixed([A, B], {}).map((p) => p.slot)).toEqual(A.pieces.map((p) => p.slot));
  });

  it("takes a whole part from whom it was picked, or nobody", () => {
    const found = mixed([A, B], { Kick: 1, Room: 1, Toms: -1 });
    expect(found.map((p) => p.slot)).toEqual([
      "picture",
      "kick",
      "kick-two",
      "snare",
      "room-mono",
      "far",
    ]);
  });

  it("has a part that any of them has, and no other", () => {
    expect(partsIn([plan("picture"), plan("picture", "far")])).toEqual(["Picture", "Room"]);
    expect(partsIn([A])).toEqual(["Picture", "Kick", "Snare", "Toms", "Room"]);
  });

  it("knows where every slot belongs, once", () => {
    const slots = PARTS.flatMap(([, s]) => [...s] as string[]);
    expect(new Set(slots).size).toBe(slots.length);
    expect(piecesOf(B, "Kick").length).toBe(2);
    expect(piecesOf(undefined, "Kick")).toEqual([]);
  });
});
