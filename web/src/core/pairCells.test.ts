import { describe, expect, it } from "vitest";
import type { Board, Verdict } from "../api/types";
import { cellsOf, unitCells } from "./pairCells";

const board = {
  mic_ids: ["ST", "SB", "OL", "OR"],
  sources: [{ id: "kick" }, { id: "snare" }],
  pair_a: ["ST", "ST", "ST", "SB", "SB", "OL"],
  pair_b: ["SB", "OL", "OR", "OL", "OR", "OR"],
  worst: ["hollow", "behind", "late", "ask the ear", "together", "together"] as Verdict[],
  worst_source: ["snare", "snare", "snare", "kick", "snare", "snare"],
  verdict: [["no matter"], ["no matter"], ["late"], ["no matter"], ["no matter"], ["together"]],
  tips: [{ pair: 2, source: 1, verdict: "hollow" }],
  units: [
    { name: "Snare", mics: ["ST", "SB"] },
    { name: "OL OR", mics: ["OL", "OR"] },
  ],
} as unknown as Board;

describe("cells of the grid", () => {
  it("has every pair both ways round, on its worst drum or on a chosen one", () => {
    const worst = cellsOf(board, null);
    expect(worst.get("OR ST")).toEqual({ verdict: "late", drum: "snare", tips: "hollow" });
    expect(worst.get("ST OR")).toBe(worst.get("OR ST"));
    expect(cellsOf(board, "kick").get("ST SB")?.verdict).toBe("no matter");
  });

  it("shows of two units the worst of their pairs, and how many want something", () => {
    const cells = unitCells(board, null);
    expect(cells.get("OL OR Snare")).toMatchObject({
      verdict: "late",
      a: "ST",
      b: "OR",
      marked: 2,
    });
    expect(cells.get("Snare Snare")).toMatchObject({ verdict: "hollow", a: "ST", b: "SB" });
    expect(cells.get("OL OR OL OR")).toMatchObject({ verdict: "together", marked: 0 });
  });
});
