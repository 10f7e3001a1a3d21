import { expect, it } from "vitest";
import type { Tried } from "../api/types";
import { holds, songsOf } from "./triedLines";

const line = (more: Partial<Tried>): Tried => ({
  id: 1,
  session_id: 1,
  session: "Day one",
  layout_id: 1,
  layout: "Layout B",
  song: "Low Water",
  words: "Toms fuller",
  verdict: "works",
  stood: false,
  since: [{ what: "OR", words: "moved", moved_m: 0.1 }],
  by: "demo",
  at: "2026-03-01T10:00:00Z",
  ...more,
});

it.each([
  ["", true],
  ["TOMS water", true],
  ["or moved", true],
  ["layout b day", true],
  ["toms snare", false],
])("a line holds the words %j: %s", (words, is) => {
  expect(holds(line({}), words)).toBe(is);
});

it("names each song once, the newest first, and none that has no name", () => {
  const lines = ["Rope Walk", "", "Low Water", "Rope Walk"].map((song) => line({ song }));
  expect(songsOf(lines)).toEqual(["Rope Walk", "Low Water"]);
});
