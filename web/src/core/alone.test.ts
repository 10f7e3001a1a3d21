/** Verdicts without a server, in each direction. */
import { expect, it } from "vitest";
import type { AskRow } from "../api/types";
import { aloneOf } from "./alone";

const raise = { closer: "Lower it {}", further: "Raise it {}", per_m: 1.25 };
const ask = (to: string | null) =>
  ({
    mic: "OL",
    to,
    target_m: 1.3,
    tolerance_m: 0.01,
    ways: [raise],
    tape_m: [0.005, 9],
  }) as AskRow;

it.each([
  [1.34, "snare", "{} too far", "Lower it {}, about."],
  [1.26, "snare", "{} too near", "Raise it {}, about."],
  [1.34, null, "{} too high", "Lower it {}, about."],
  [1.26, null, "{} too low", "Raise it {}, about."],
] as const)("%f to %s", (metres, to, words, move) => {
  const said = aloneOf(ask(to), metres);
  expect(said.good).toBe(false);
  expect(said.words.text).toBe(words);
  expect(said.words.lengths_m[0]).toBeCloseTo(0.04);
  expect(said.moves.map((m) => m.text)).toEqual([move]);
  expect(said.moves[0]?.lengths_m[0]).toBeCloseTo(0.05);
});

it("leaves what is within its tolerance", () => {
  expect(aloneOf(ask("snare"), 1.309)).toMatchObject({ good: true, moves: [] });
  expect(aloneOf(ask("snare"), 1.311).good).toBe(false);
});

it.each([
  [0.0049, true, "A tape reads more than nothing"],
  [0.0051, false, "{} too near"],
  [8.99, false, "{} too far"],
  [9.01, true, "Nothing here is further apart than {}"],
] as const)("says what no tape reads: %f", (metres, cannot, words) => {
  const said = aloneOf(ask("snare"), metres);
  expect(said.cannot).toBe(cannot);
  expect(said.words.text).toContain(words);
});
