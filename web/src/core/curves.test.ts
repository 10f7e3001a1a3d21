import { describe, expect, it } from "vitest";
import { nearest, onScale, scaleFor, trace } from "./curves";

describe("curves", () => {
  const x = { low: 0, high: 10, from: 100, to: 200 };

  it("puts values on a scale, upside down where asked", () => {
    expect(onScale(5, x)).toBe(150);
    expect(onScale(0, { low: 0, high: 1, from: 80, to: 0 })).toBe(80);
    expect(onScale(3, { low: 3, high: 3, from: 0, to: 10 })).toBe(5);
  });

  it("makes a scale that holds everything and is never thinner than asked", () => {
    const s = scaleFor([1, 3], 10, 0, 100);
    expect(s.high - s.low).toBeCloseTo(10);
    expect(s.low).toBeLessThanOrEqual(1);
    const wide = scaleFor([-50, 50], 10, 0, 100);
    expect(wide.low).toBeLessThan(-50);
    expect(scaleFor([], 4, 0, 1)).toMatchObject({ low: -2, high: 2 });
  });

  it("draws a line that breaks where nothing is known", () => {
    const [x10, down] = [(v: number) => 100 + 10 * v, (v: number) => 10 - v];
    expect(trace([0, 1, 2, 3], [0, 1, null, 1], x10, down)).toBe(
      "M100.0 10.0L110.0 9.0M130.0 9.0h0",
    );
    expect(trace([], [], x10, down)).toBe("");
  });

  it("finds the nearest value", () => {
    expect(nearest([0, 1, 2, 3], 2.4)).toBe(2);
    expect(nearest([5], -9)).toBe(0);
  });
});
