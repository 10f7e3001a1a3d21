import { describe, expect, it } from "vitest";
import type { Layout } from "../api/types";
import { namedFromOther } from "./pairNames";

const layout = (left: number, right: number, coding = "left-right") =>
  ({
    mics: [
      { id: "OL", position_m: [left, 0, 2] },
      { id: "OR", position_m: [right, 0, 2] },
    ],
    stereo_pairs: [{ name: "P", left: "OL", right: "OR", coding }],
  }) as unknown as Layout;

describe("from which side a pair is named", () => {
  it("says so only where the drawing is seen from the other", () => {
    // x runs to the drummer's right.
    expect(namedFromOther(layout(-0.5, 0.5), "drummer")).toBeNull();
    expect(namedFromOther(layout(-0.5, 0.5), "audience")?.from).toBe("drummer");
    expect(namedFromOther(layout(0.5, -0.5), "drummer")).toEqual({
      left: "OL",
      right: "OR",
      from: "audience",
    });
    expect(namedFromOther(layout(0.5, -0.5), "audience")).toBeNull();
  });

  it("is quiet where two stand at one point, or are mid and side", () => {
    expect(namedFromOther(layout(0.5, 0.48), "drummer")).toBeNull();
    expect(namedFromOther(layout(0.5, -0.5, "mid-side"), "drummer")).toBeNull();
  });
});
