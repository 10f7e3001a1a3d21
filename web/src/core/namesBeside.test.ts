import { expect, test } from "vitest";
import { namesBeside } from "./namesBeside";
import { meet, type Point2 } from "./view";

const named = (...at: Point2[]) => at.map((p, i) => ({ id: `M${i}`, at: p, body: p, wide: 20 }));

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

test("of more at one point the third stands below, the fourth above, the fifth at a corner", () => {
  const at: Point2 = [100, 50];
  const five = named(at, at, at, at, at).map((mic) => ({ ...mic, wide: 14 }));
  expect([...namesBeside(five).values()]).toEqual([
    [117, 50],
    [83, 50],
    [100, 66],
    [100, 34],
    [117, 63],
  ]);
});

test("what stands right of a mic keeps its name off that side", () => {
  const [first] = [...namesBeside(named([100, 50], [118, 52])).values()];
  expect(first).toEqual([80, 50]);
});

test("of a crossed pair each name stands on the side of its own mic, whichever comes first", () => {
  const left = { id: "left", at: [100, 50] as Point2, body: [94, 46] as Point2, wide: 14 };
  const right = { id: "right", at: [100, 50] as Point2, body: [106, 46] as Point2, wide: 14 };
  for (const both of [
    [left, right],
    [right, left],
  ]) {
    const names = namesBeside(both);
    expect([names.get("left"), names.get("right")]).toEqual([
      [83, 50],
      [117, 50],
    ]);
  }
});

test("no two names of a cluster meet", () => {
  const places = [...namesBeside(named([100, 50], [104, 52], [98, 55], [101, 47])).values()];
  const boxes = places.map((at) => ({ at, wide: 20, high: 11 }));
  for (const [i, a] of boxes.entries())
    for (const b of boxes.slice(i + 1)) expect(meet(a, b)).toBe(false);
});
