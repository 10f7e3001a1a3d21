/** The locker's rows in words, and names that are not taken. */
import { describe, expect, it } from "vitest";
import type { Locker } from "../../api/types";
import type { Ruler } from "../../core/units";
import { KINDS, newRow, rowsOf, summaryOf } from "./rows";

const hand = {
  two_fingers_m: 0.035,
  three_fingers_m: 0.055,
  fist_m: 0.09,
  hand_m: 0.19,
  card_m: 0.0004,
};
const cm: Ruler = { units: "cm", hand };
const empty: Locker = {
  mics: [],
  stands: [],
  inputs: [],
  cables: [],
  budget: null,
  minutes: null,
  minutes_per_mic: 6,
  notes: "",
};

describe("rows of the locker", () => {
  it("has a table for each kind, with name and count first", () => {
    expect(KINDS.map((k) => k.kind)).toEqual(["mics", "stands", "inputs", "cables"]);
    for (const { heads } of KINDS) expect(heads.slice(0, 2)).toEqual(["Name", "How many"]);
  });

  it.each(KINDS)("makes a new row of $kind whose cells fill the table", ({ kind, heads }) => {
    const row = newRow(kind, empty);
    expect(summaryOf(kind, row, cm).length).toBe(heads.length - 2);
  });

  it("gives each new row a name that is not taken", () => {
    const one = newRow("stands", empty);
    const two = newRow("stands", { ...empty, stands: [one] as Locker["stands"] });
    expect(one.id).toBe("stand-1");
    expect(two.id).toBe("stand-2");
    const held = { ...empty, stands: [one, two] as Locker["stands"] };
    expect(rowsOf(held, "stands").map((r) => r.id)).toEqual(["stand-1", "stand-2"]);
  });

  it("words a mic with its care", () => {
    const mic = { ...newRow("mics", empty), fragile: true, matched: true, phantom: true };
    expect(summaryOf("mics", mic as never, cm)).toEqual([
      "condenser",
      "cardioid",
      "yes",
      "fragile to air, matched",
    ]);
  });

  it("words lengths in one's own units", () => {
    const stand = newRow("stands", empty);
    expect(summaryOf("stands", stand, cm)).toEqual(["90.0 cm to 160.0 cm", "80.0 cm", "3 kg"]);
    const feet: Ruler = { units: "ft-in", hand };
    expect(summaryOf("stands", stand, feet)[1]).toBe("2′ 7½″");
    const straight = { ...stand, reach_m: 0 };
    expect(summaryOf("stands", straight as never, cm)[1]).toBe("straight");
  });

  it("words inputs by how phantom is switched", () => {
    const bank = { ...newRow("inputs", empty), phantom: "bank", max_level_dbu: 18 };
    expect(summaryOf("inputs", bank as never, cm)).toEqual(["one switch for all", "18 dBu"]);
    const none = { ...bank, phantom: "none", max_level_dbu: null };
    expect(summaryOf("inputs", none as never, cm)).toEqual(["none", ""]);
  });
});
