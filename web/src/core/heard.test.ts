import { expect, it } from "vitest";
import type { LastHeard, PairHits, Verdict } from "../api/types";
import { heardBeside, heardMarks, heardOn } from "./heard";

const pair = (a: string, b: string, source: string, measured: Verdict, counts = true) =>
  ({ a, b, source, measured, counts }) as PairHits;

const HEARD = {
  pairs: [
    pair("OL", "OR", "snare", "late"),
    pair("OL", "OR", "kick", "together"),
    pair("ST", "SB", "snare", "together"),
    pair("ST", "SB", "rack-1", "hollow", false),
  ],
} as LastHeard;

it("is the worst of the drums that count, or that of one drum", () => {
  expect(heardMarks(HEARD.pairs, null).get("OL OR")?.measured).toBe("late");
  expect(heardMarks(HEARD.pairs, "kick").get("OL OR")?.measured).toBe("together");
  expect(heardMarks(HEARD.pairs, null).get("SB ST")?.measured).toBe("together");
  expect(heardMarks(HEARD.pairs, "rack-1").get("SB ST")?.measured).toBe("hollow");
  expect(heardMarks(undefined, null).size).toBe(0);
  expect(heardOn(HEARD, "OR", "OL", "snare")?.measured).toBe("late");
  expect(heardOn(HEARD, "OR", "OL", "floor")).toBeUndefined();
});

it("is worth a sign where something is wrong, or is not after all", () => {
  const marks = heardMarks(HEARD.pairs, null);
  expect(heardBeside(marks, "OR", "OL", "together")).toBe("late");
  expect(heardBeside(marks, "OL", "OR", "late")).toBeNull();
  expect(heardBeside(marks, "ST", "SB", "ask the ear")).toBe("together");
  expect(heardBeside(marks, "ST", "SB", "behind")).toBeNull();
  expect(heardBeside(marks, "T1", "T2", "hollow")).toBeNull();
});
