import { describe, expect, it } from "vitest";
import type { Board, Layout, PairRow, Verdict } from "../api/types";
import { byColumn, micOrder, passes } from "./pairList";
import { serial } from "./serial";

const mic = (id: string, job: string | null, role = "close") => ({
  id,
  name: `The ${id}`,
  job,
  role,
});
const layout = {
  kit: { drums: [{ id: "kick" }, { id: "snare" }], cymbals: [{ id: "hats" }] },
  mics: [
    mic("OL", null, "overhead"),
    mic("HH", "hats"),
    mic("KI", "kick"),
    mic("RM", null, "room"),
  ],
} as unknown as Layout;
const board = {
  mic_ids: ["OL", "HH", "KI", "RM"],
  pair_a: ["OL", "OL", "OL", "HH", "HH", "KI"],
  pair_b: ["HH", "KI", "RM", "KI", "RM", "RM"],
  trouble: [1, 2, 4, 7],
  worst: ["no matter", "together", "ask the ear", "no matter", "late", "hollow"] as Verdict[],
} as unknown as Board;

describe("many pairs", () => {
  it("puts the mics in three orders", () => {
    expect(micOrder(layout, board, "as laid out")).toEqual(["OL", "HH", "KI", "RM"]);
    expect(micOrder(layout, board, "by drum")).toEqual(["KI", "HH", "OL", "RM"]);
    expect(micOrder(layout, board, "worst first")).toEqual(["RM", "KI", "HH", "OL"]);
  });

  it("leaves what is looked for", () => {
    const pair = { a: "KI", b: "RM", verdict: "hollow" as Verdict };
    expect(passes(layout, pair, { verdicts: [], words: "" })).toBe(true);
    expect(passes(layout, pair, { verdicts: ["late"], words: "" })).toBe(false);
    expect(passes(layout, pair, { verdicts: ["hollow"], words: "kick" })).toBe(true);
    expect(passes(layout, pair, { verdicts: [], words: "kick room" })).toBe(true);
    expect(passes(layout, pair, { verdicts: [], words: "hats" })).toBe(false);
  });

  it("sorts by any column, worst first, and back", () => {
    const row = (a: string, verdict: Verdict, delay_s: number, body_db: number) =>
      ({
        a,
        b: "X",
        source: "kick",
        verdict,
        delay_s,
        body_db,
        flipped_body_db: 0,
        level_difference_db: 1,
      }) as PairRow;
    const rows = [
      row("A", "together", 0.001, 3),
      row("B", "hollow", -0.004, -9),
      row("C", "late", 0.002, 1),
    ];
    const names = (r: PairRow[]) => r.map((x) => x.a).join("");
    expect(names(byColumn(rows, "verdict", true))).toBe("BCA");
    expect(names(byColumn(rows, "verdict", false))).toBe("ACB");
    expect(names(byColumn(rows, "delay", true))).toBe("BCA");
    expect(names(byColumn(rows, "body", true))).toBe("BCA");
    expect(names(byColumn(rows, "pair", true))).toBe("ABC");
  });

  it("numbers each layout once", () => {
    const other = { ...layout };
    expect(serial(layout)).toBe(serial(layout));
    expect(serial(other)).not.toBe(serial(layout));
  });
});
