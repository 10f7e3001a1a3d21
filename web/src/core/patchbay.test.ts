/** Sockets are counted on from box to box; plugging in where somebody is changes the two over. */
import { expect, it } from "vitest";
import type { Channel, InputBank, Layout } from "../api/types";
import { boxesOf, highOf, nextFree, pluggedInto, ROW, reordered, rowY, socketY } from "./patchbay";

const bank = (id: string, count: number) =>
  ({ id, name: id.toUpperCase(), count, phantom: "each" }) as InputBank;
const channels = [
  { id: "KI", input: 1 },
  { id: "ST", input: 3 },
  { id: "OL", input: null },
] as Channel[];
const layout = { channels } as Layout;

it("lays the boxes of the locker one below the other, and what lies beyond them last", () => {
  const boxes = boxesOf([bank("a", 2), bank("b", 4)], channels);
  expect(boxes.map((b) => [b.id, b.first, b.count])).toEqual([
    ["a", 1, 2],
    ["b", 3, 4],
  ]);
  const over = boxesOf([bank("a", 2)], channels);
  expect(over.at(-1)).toMatchObject({ name: "Not in the locker", first: 3, count: 1 });
  expect(boxesOf([], channels)).toMatchObject([{ name: "Inputs", count: 8 }]);
});

it("finds a socket's place and none where there is no such socket", () => {
  const boxes = boxesOf([bank("a", 2), bank("b", 4)], []);
  const [one, two, three] = [1, 2, 3].map((n) => socketY(boxes, n) ?? 0);
  expect((two ?? 0) - (one ?? 0)).toBe(ROW);
  expect((three ?? 0) - (two ?? 0)).toBeGreaterThan(ROW);
  expect([socketY(boxes, 7), socketY(boxes, null)]).toEqual([null, null]);
  expect(highOf(boxes, 40)).toBeGreaterThan(rowY(39));
});

it("changes two tracks over, and only moves one into a free socket", () => {
  expect(pluggedInto(layout, "OL", 3).map((c) => [c.id, c.input])).toEqual([
    ["OL", 3],
    ["ST", null],
  ]);
  expect(pluggedInto(layout, "KI", 3).map((c) => [c.id, c.input])).toEqual([
    ["KI", 3],
    ["ST", 1],
  ]);
  expect(pluggedInto(layout, "KI", 2).map((c) => [c.id, c.input])).toEqual([["KI", 2]]);
  expect(pluggedInto(layout, "KI", 1)).toEqual([]);
  expect(pluggedInto(layout, "KI", null).map((c) => c.input)).toEqual([null]);
});

it("finds the next free socket either way", () => {
  const boxes = boxesOf([bank("a", 4)], channels);
  expect(nextFree(boxes, channels, 1, 1)).toBe(2);
  expect(nextFree(boxes, channels, 3, -1)).toBe(2);
  expect(nextFree(boxes, channels, null, 1)).toBe(2);
  expect(nextFree(boxes, channels, 4, 1)).toBeNull();
});

it("moves a track up and down within its list", () => {
  expect(reordered(channels, "ST", -1)).toEqual(["ST", "KI", "OL"]);
  expect(reordered(channels, "ST", 1)).toEqual(["KI", "OL", "ST"]);
  expect(reordered(channels, "KI", -1)).toEqual(["KI", "ST", "OL"]);
});
