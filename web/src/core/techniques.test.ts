import { describe, expect, it } from "vitest";
import type { Technique } from "../api/types";
import { clockText, found, numberText, stepOf } from "./techniques";

const row = (name: string, group: string, also = "") =>
  ({ name, group, also, gives: "Something." }) as Technique;
const ALL = [
  row("Turned pair", "Overheads", "ring mirror"),
  row("Kick inside", "Kick", "beater"),
  row("Room pair on a bar", "Room", "stereo"),
];
const cm = { units: "cm" } as Parameters<typeof numberText>[2];

describe("the list of techniques", () => {
  it("finds by any of its words, in any order, within a group", () => {
    expect(found(ALL, "pair", "").map((t) => t.name)).toEqual([
      "Turned pair",
      "Room pair on a bar",
    ]);
    expect(found(ALL, "MIRROR turned", "").length).toBe(1);
    expect(found(ALL, "pair", "Room").map((t) => t.name)).toEqual(["Room pair on a bar"]);
    expect(found(ALL, "harp", "")).toEqual([]);
    expect(found(ALL, "  ", "")).toEqual(ALL);
  });
});

describe("its numbers", () => {
  it("are worded in their unit", () => {
    expect(numberText(1.2, { unit: "m" }, cm)).toBe("120.0 cm");
    expect(numberText(110, { unit: "deg" }, cm)).toBe("110°");
    expect(numberText(10.5, { unit: "clock" }, cm)).toBe("10.5 o'clock");
    expect(numberText(0.3, { unit: "share" }, cm)).toBe("0.30");
  });

  it("have 12 at the top of the clock and nothing past it", () => {
    expect([0, 12, 11.99, 6, -1].map(clockText)).toEqual(["12", "12", "12", "6", "11"]);
  });

  it("step as finely as their range wants", () => {
    expect(stepOf({ unit: "m", low: 0, high: 0.02 })).toBe(0.0001);
    expect(stepOf({ unit: "m", low: 0, high: 0.3 })).toBe(0.001);
    expect(stepOf({ unit: "m", low: 0.4, high: 4 })).toBe(0.01);
    expect(stepOf({ unit: "deg", low: 0, high: 90 })).toBe(1);
  });
});
