/** How far the tapes reach: in steps, and under a hand never back. */
import { expect, it } from "vitest";
import type { Board, Layout } from "../api/types";
import { reach } from "./reach";

const still = {
  kit: { drums: [{ id: "tom" }, { id: "kick", kind: "kick" }, { id: "snare", kind: "snare" }] },
} as Layout;
/** One mic so far from tom, kick and snare. */
const far = (...tape_m: number[]) =>
  ({ sources: [{ id: "tom" }, { id: "kick" }, { id: "snare" }], tape_m: [tape_m] }) as Board;
const at = (board: Board | null, underHand: string | null = null) => ({ board, still, underHand });

it("reaches behind the furthest mic of snare and kick, in steps", () => {
  const end = reach();
  expect(end(at(null))).toBe(0);
  expect(end(at(far(9, 0.3, 0.4)))).toBeCloseTo(1.4); // no shorter than 1.2 and a little more
  expect(end(at(far(0, 1.54, 1.0)))).toBeCloseTo(1.6);
  expect(end(at(far(0, 1.0, 1.56)))).toBeCloseTo(1.8);
});

it("grows under a hand by a leap and comes back when it rests, or another takes hold", () => {
  const end = reach();
  expect(end(at(far(0, 1.5, 1), "OR"))).toBeCloseTo(1.6);
  expect(end(at(far(0, 1.7, 1), "OR"))).toBeCloseTo(2.4);
  expect(end(at(far(0, 2.3, 1), "OR"))).toBeCloseTo(2.4);
  expect(end(at(far(0, 1.5, 1), "OR"))).toBeCloseTo(2.4);
  expect(end(at(far(0, 2.4, 1), "OR"))).toBeCloseTo(3.2);
  expect(end(at(far(0, 1.5, 1), "OL"))).toBeCloseTo(1.6);
  expect(end(at(far(0, 1.7, 1), "OL"))).toBeCloseTo(2.4);
  expect(end(at(far(0, 1.5, 1)))).toBeCloseTo(1.6);
});
