import { expect, test } from "vitest";
import { namesBeside } from "./namesBeside";
import { meet, type Point2 } from "./view";

const named = (...at: Point2[]) => at.map((p, i) => ({ id: `M${i}`, at: p, wide: 20 }));

test("a name stands right of what it names, where there is room", () => {
  expect([...namesBeside(named([100, 50], [200, 50])).values()]).toEqual([
    [120, 50],
    [220, 50],
  ]);
});

test("of a pair at one point the second name stands left", () => {
  expect([...namesBeside(named([100, 50], [100, 50])).values()]).toEqual([
    [120, 50],
    [80, 50],
  ]);
});

test("what stands right of a mic keeps its name off that side", () => {
  const [first] = [...namesBeside(named([100, 50], [118, 52])).values()];
  expect(first).toEqual([80, 50]);
});

test("no two names of a cluster meet", () => {
  const places = [...namesBeside(named([100, 50], [104, 52], [98, 55], [101, 47])).values()];
  const boxes = places.map((at) => ({ at, wide: 20, high: 11 }));
  for (const [i, a] of boxes.entries())
    for (const b of boxes.slice(i + 1)) expect(meet(a, b)).toBe(false);
});
