/** Edits: each makes a new layout, follows every mention, and leaves the old one alone. */
import { readFileSync } from "node:fs";
import { beforeEach, describe, expect, it } from "vitest";
import type { Layout } from "../api/types";
import {
  added,
  copied,
  decided,
  decisionOn,
  freeName,
  micOf,
  paired,
  partnerOf,
  placed,
  removed,
  renamed,
  undecided,
  unpaired,
  withMic,
} from "./edits";

const file = new URL("../../../demo/b-turned-pair.layout.json", import.meta.url);
const text = readFileSync(file, "utf8");

const STOOD = { verdict: "late", delay_s: 0.0006, body_db: 5.4 } as const;

describe("edits of the demo layout", () => {
  let layout: Layout;
  beforeEach(() => {
    layout = JSON.parse(text);
  });
  const untouched = () => expect(JSON.stringify(layout)).toBe(JSON.stringify(JSON.parse(text)));

  it("places a mic to a tenth of a millimetre", () => {
    const next = placed(layout, "OR", [0.123456, -0.5, 1.70004]);
    expect(micOf(next, "OR")?.position_m).toEqual([0.1235, -0.5, 1.7]);
    expect(micOf(next, "OL")).toEqual(micOf(layout, "OL"));
    untouched();
  });

  it("writes no minus nought", () => {
    const at = micOf(placed(layout, "OR", [-0.00001, 0, 1]), "OR")?.position_m[0];
    expect(Object.is(at, 0)).toBe(true);
  });

  it("a new name is followed by pairs and decisions", () => {
    const before = decided(layout, { a: "OL", b: "OR", source: "kick" }, "by ear", STOOD);
    const next = renamed(before, "OL", "L1");
    expect(micOf(next, "L1")?.name).toBe("Left overhead");
    expect(micOf(next, "OL")).toBeUndefined();
    expect(next.stereo_pairs[0]).toMatchObject({ left: "L1", right: "OR" });
    expect(next.decisions[0]).toMatchObject({ a: "L1", b: "OR" });
    untouched();
  });

  it("a mic taken away leaves no pair or decision that names it", () => {
    const before = decided(layout, { a: "OL", b: "OR", source: "kick" }, "by ear", STOOD);
    const next = removed(before, "OR");
    expect(next.mics).toHaveLength(9);
    expect(next.stereo_pairs).toEqual([]);
    expect(next.decisions).toEqual([]);
    untouched();
  });

  it("a new mic has a free name and the next input", () => {
    const one = added(layout);
    const two = added(one.layout);
    expect([one.id, two.id]).toEqual(["M1", "M2"]);
    expect(micOf(two.layout, "M2")?.channel).toBe(12);
    untouched();
  });

  it("a copy stands ten centimetres to the right under a free name", () => {
    const { layout: next, id } = copied(layout, "T1");
    expect(id).toBe("T3");
    const [from, to] = [micOf(layout, "T1"), micOf(next, id)];
    expect((to?.position_m[0] ?? 0) - (from?.position_m[0] ?? 0)).toBeCloseTo(0.1, 9);
    expect(to?.job).toBe(from?.job);
    expect(copied(layout, "none").layout).toBe(layout);
  });

  it("finds a name nobody has", () => {
    expect(freeName(layout, "T")).toBe("T3");
    expect(freeName(layout, "OL")).toBe("OL1");
  });

  it("pairs and unpairs, whichever is named first", () => {
    const next = paired(layout, "KI", "KO", "Kicks");
    expect(partnerOf(next, "KO")).toBe("KI");
    expect(partnerOf(next, "KI")).toBe("KO");
    expect(partnerOf(unpaired(next, "KO", "KI"), "KI")).toBeNull();
    expect(partnerOf(unpaired(next, "KO", "KI"), "OL")).toBe("OR");
  });

  it("one pair and drum has one decision, whichever mic is named first", () => {
    const key = { a: "OL", b: "OR", source: "kick" };
    const turned = { a: "OR", b: "OL", source: "kick" };
    const once = decided(layout, key, "first", STOOD);
    const twice = decided(once, turned, "second", { ...STOOD, verdict: "hollow" });
    expect(twice.decisions).toHaveLength(1);
    expect(decisionOn(twice, key)?.reason).toBe("second");
    expect(decisionOn(twice, key)?.stood?.verdict).toBe("hollow");
    expect(decisionOn(twice, { ...key, source: "snare" })).toBeUndefined();
    expect(undecided(twice, key).decisions).toEqual([]);
  });

  it("only the asked switch is thrown", () => {
    const next = withMic(layout, "SB", { preamp_flip: true });
    const on = next.mics.filter((m) => m.preamp_flip).map((m) => m.id);
    expect(on).toEqual(["SB"]);
    untouched();
  });
});
