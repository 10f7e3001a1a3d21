/** Lengths: the same table that tests the sheet's wording, and what people type. */
import { readFileSync } from "node:fs";
import { describe, expect, it } from "vitest";
import { dipText, lengthText, parseLength } from "./units";

const table = new URL("../../../tests/length_cases.json", import.meta.url);
const cases: { metres: number; cm: string; "ft-in": string }[] = JSON.parse(
  readFileSync(table, "utf8"),
);

describe("lengths", () => {
  it.each(cases)("words $metres m as the sheet does", (c) => {
    expect(lengthText(c.metres, "cm")).toBe(c.cm);
    expect(lengthText(c.metres, "ft-in")).toBe(c["ft-in"]);
  });

  it.each(cases)("reads back what it worded for $metres m, to half an eighth", (c) => {
    expect(parseLength(c.cm, "cm")).toBeCloseTo(c.metres, 3);
    const eighth = 0.0254 / 8;
    expect(Math.abs((parseLength(c["ft-in"], "ft-in") ?? 9) - c.metres)).toBeLessThan(eighth / 1.9);
  });

  it.each([
    ["120,3", "cm", 1.203],
    ["1.2 m", "cm", 1.2],
    ["120 cm", "ft-in", 1.2],
    ["4 mm", "cm", 0.004],
    ["-12", "cm", -0.12],
    ["5' 6 1/2\"", "ft-in", 66.5 * 0.0254],
    ["5ft 6in", "cm", 66 * 0.0254],
    ["5'", "cm", 60 * 0.0254],
    ["50", "ft-in", 50 * 0.0254],
    ["7/8", "ft-in", 0.875 * 0.0254],
  ] as const)("understands %s in %s", (text, units, metres) => {
    expect(parseLength(text, units)).toBeCloseTo(metres, 9);
  });

  it.each(["", "far", "1.2.3", "12 yards", "5' x"])("does not guess at %j", (text) => {
    expect(parseLength(text, "cm")).toBeNull();
    expect(parseLength(text, "ft-in")).toBeNull();
  });

  it("says when a dip is out of hearing", () => {
    expect(dipText(null)).toBe("none to hear");
    expect(dipText(46000)).toBe("none to hear");
    expect(dipText(819)).toBe("819 Hz");
  });
});
