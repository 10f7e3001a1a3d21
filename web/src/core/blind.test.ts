import { describe, expect, it } from "vitest";
import { answered, begun, byLuck, verdictOf } from "./blind";

describe("a blind test", () => {
  it("draws X by the dice and counts right answers", () => {
    let test = begun(() => 0.2);
    expect(test).toEqual({ x: "A", right: 0, given: 0 });
    test = answered(test, "A", () => 0.9);
    expect(test).toEqual({ x: "B", right: 1, given: 1 });
    test = answered(test, "A", () => 0.9);
    expect(test).toEqual({ x: "B", right: 1, given: 2 });
  });

  it("knows what luck does", () => {
    // Binomial tables for p = 1/2: 9 or more of 10 come in 11 of 1024, 8 of 8 in 1 of 256.
    expect(byLuck(9, 10)).toBeCloseTo(11 / 1024, 12);
    expect(byLuck(8, 8)).toBeCloseTo(1 / 256, 12);
    expect(byLuck(0, 7)).toBe(1);
  });

  it("says nothing before five answers and no more than the count holds", () => {
    expect(verdictOf({ x: "A", right: 4, given: 4 })).toContain("at least five");
    expect(verdictOf({ x: "A", right: 5, given: 5 })).toBe(
      "You hear it: by luck this comes once in 32 times.",
    );
    expect(verdictOf({ x: "A", right: 4, given: 8 })).toBe("As good as guessing so far.");
  });
});
