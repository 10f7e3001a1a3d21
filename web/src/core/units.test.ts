/** Lengths: the same table that tests the sheet's wording, and what people type. */
import { readFileSync } from "node:fs";
import { describe, expect, it } from "vitest";
import { dbText, dipText, lengthText, parseLength, type Ruler, signedText } from "./units";

const hand = {
  two_fingers_m: 0.035,
  three_fingers_m: 0.055,
  fist_m: 0.09,
  hand_m: 0.19,
  card_m: 0.0004,
};
const by = (units: Ruler["units"]): Ruler => ({ units, hand });

const table = new URL("../../../tests/length_cases.json", import.meta.url);
const cases: { metres: number; cm: string; "ft-in": string; hand: string }[] = JSON.parse(
  readFileSync(table, "utf8"),
);

describe("lengths", () => {
  it.each(cases)("words $metres m as the sheet does", (c) => {
    expect(lengthText(c.metres, by("cm"))).toBe(c.cm);
    expect(lengthText(c.metres, by("ft-in"))).toBe(c["ft-in"]);
    expect(lengthText(c.metres, by("hand"))).toBe(c.hand);
  });

  it.each(cases)("reads back what it worded for $metres m, to half an eighth", (c) => {
    expect(parseLength(c.cm, by("cm"))).toBeCloseTo(c.metres, 3);
    const eighth = 0.0254 / 8;
    // Half a finger apart at most: a quarter of one each way, and no finger is wider than 2 cm.
    const told = parseLength(c.hand, by("hand")) ?? 9;
    expect(Math.abs(told - c.metres)).toBeLessThan(0.0051);
    expect(Math.abs((parseLength(c["ft-in"], by("ft-in")) ?? 9) - c.metres)).toBeLessThan(
      eighth / 1.9,
    );
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
    ["6 h fist 2½ f", "hand", 6 * 0.19 + 0.09 + 0.045],
    ["6h 2.5f", "cm", 6 * 0.19 + 0.045],
    ["2 fingers", "hand", 0.035],
    ["3 fingers", "ft-in", 0.055],
    ["hand", "hand", 0.19],
    ["card", "hand", 0.0004],
    ["120 cm", "hand", 1.2],
  ] as const)("understands %s in %s", (text, units, metres) => {
    expect(parseLength(text, by(units))).toBeCloseTo(metres, 9);
  });

  it.each(["", "far", "1.2.3", "12 yards", "5' x"])("does not guess at %j", (text) => {
    expect(parseLength(text, by("cm"))).toBeNull();
    expect(parseLength(text, by("ft-in"))).toBeNull();
    expect(parseLength(text, by("hand"))).toBeNull();
  });

  it("does not take a bare number for hands or for fingers", () => {
    expect(parseLength("12", by("hand"))).toBeNull();
  });

  it("uses one's own hand", () => {
    const wide: Ruler = { units: "hand", hand: { ...hand, hand_m: 0.22 } };
    expect(lengthText(0.44, wide)).toBe("2 h");
  });

  it("says when a dip is out of hearing", () => {
    expect(dipText(null)).toBe("none to hear");
    expect(dipText(46000)).toBe("none to hear");
    expect(dipText(819)).toBe("819 Hz");
  });
});

describe("signs", () => {
  it.each([
    [1.25, "+1.3"],
    [-1.26, "−1.3"],
    [0.05, "+0.1"],
    [0.04, "0.0"],
    [-0.04, "0.0"],
  ])("words %d dB as %s: nothing has no sign", (db, said) => {
    expect(dbText(db)).toBe(said);
  });

  it("goes without a plus where none is wanted", () => {
    expect([0.5, -0.5, -0.004].map((n) => signedText(n, 2, ""))).toEqual(["0.50", "−0.50", "0.00"]);
  });
});
