import { expect, it } from "vitest";
import type { TakeNamed, Tried } from "../api/types";
import { heardBefore, holds, likelyTake, songsOf } from "./triedLines";

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
  take: null,
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

const take = (id: number, at: string, layout_id = 1): TakeNamed => ({
  ...{ id, layout_id, name: `Take ${id}`, layout: "Layout B" },
  made_at: `2026-03-01T${at}:00Z`,
});

it("takes the newest take for what a line is about, where it came after the last line", () => {
  const takes = [take(3, "12:00", 2), take(2, "11:00"), take(1, "09:00")];
  expect(likelyTake(takes, 1, [line({})])).toBe(2);
  expect(likelyTake(takes, 1, [line({ at: "2026-03-01T11:30:00Z" }), line({})])).toBeNull();
  // Lines of another layout say nothing of it.
  expect(likelyTake(takes, 1, [line({ layout_id: 2, at: "2026-03-01T13:00:00Z" })])).toBe(2);
  expect(likelyTake(takes, 1, [])).toBe(2);
  expect(likelyTake(takes, 7, [])).toBeNull();
});

it("holds a line's take against that of the newest line before it that has another", () => {
  const at = (hour: string) => ({ at: `2026-03-01T${hour}:00Z` });
  const now = line({ ...at("12:00"), take: take(3, "11:50") });
  const later = line({ ...at("13:00"), take: take(4, "12:50") });
  const same = line({ ...at("11:30"), take: take(3, "11:50") });
  const none = line(at("11:00"));
  const before = line({ ...at("10:00"), id: 5, take: take(1, "09:00") });
  const oldest = line({ ...at("09:30"), id: 6, take: take(2, "09:00") });
  const other = line({ ...at("11:45"), session_id: 2, take: take(9, "11:40") });
  expect(heardBefore(now, [later, now, other, same, none, before, oldest])?.id).toBe(5);
  expect(heardBefore(now, [later, now, same])).toBeUndefined();
});

it("finds a line by the take it was heard in", () => {
  expect(holds(line({ take: take(3, "12:00") }), "take 3")).toBe(true);
});
