/** Which records count as the same. */
import { describe, expect, it } from "vitest";
import { sameParts } from "./same";

describe("two records", () => {
  const drum: Record<string, unknown> = { id: "floor", size: 1, at: [0, 1, 2] };

  it("are the same where each part is, a part that is not told like one that is not there", () => {
    expect(sameParts(drum, { ...drum })).toBe(true);
    expect(sameParts(drum, { ...drum, lean: undefined })).toBe(true);
    expect(sameParts({ ...drum, lean: undefined }, drum)).toBe(true);
  });

  it("differ by one part, by one more and by one that is gone, but not by those left out", () => {
    const { size, ...less } = drum;
    const others = { size: { ...drum, size: 2 }, lean: { ...drum, lean: 0 } };
    for (const [name, other] of Object.entries(others)) {
      expect(sameParts(drum, other)).toBe(false);
      expect(sameParts(other, drum)).toBe(false);
      expect(sameParts(drum, other, [name])).toBe(true);
      expect(sameParts(other, drum, [name])).toBe(true);
    }
    expect(sameParts(drum, less)).toBe(false);
    expect(sameParts(drum, less, ["at"])).toBe(false);
  });

  it("differ from none", () => {
    expect([sameParts(null, drum), sameParts(drum, undefined)]).toEqual([false, false]);
    expect([sameParts(null, null), sameParts(null, undefined)]).toEqual([true, false]);
  });
});
