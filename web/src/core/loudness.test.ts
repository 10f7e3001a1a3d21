/** The tapes hold every track once; flags never lie on each other; what turns over is told. */
import { readFileSync } from "node:fs";
import { expect, it } from "vitest";
import type { Board, Layout } from "../api/types";
import { fits, lanesOf, rowsOf, turnedOver } from "./loudness";

const file = new URL("../../../demo/b-turned-pair.layout.json", import.meta.url);
const layout: Layout = JSON.parse(readFileSync(file, "utf8"));

it("puts every track on one tape, drums first and the kit last", () => {
  const rows = rowsOf(layout);
  expect(rows[0]?.tracks.map((t) => t.id)).toEqual(["KI", "KO"]);
  expect(rows.at(-1)).toMatchObject({ name: "Kit" });
  const every = rows.flatMap((r) => r.tracks.map((t) => t.id));
  expect([...every].sort()).toEqual((layout.channels ?? []).map((c) => c.id).sort());
});

it("keeps a level within the tape's ends, in half decibels", () => {
  expect([fits(-90), fits(40), fits(-3.3), fits(2.74)]).toEqual([-30, 12, -3.5, 2.5]);
});

it("stacks flags that would meet and no others", () => {
  const spot = (id: string, x: number) => ({ id, x, wide: 30 });
  const { lane, count } = lanesOf([spot("a", 100), spot("b", 120), spot("c", 140), spot("d", 90)]);
  expect(count).toBe(3);
  expect([lane.get("d"), lane.get("a"), lane.get("b"), lane.get("c")]).toEqual([0, 1, 2, 0]);
});

it("tells marks that come and go, not what nobody looks at", () => {
  const board = (worst: string[]) =>
    ({ pair_a: ["A", "A", "B"], pair_b: ["B", "C", "C"], worst }) as unknown as Board;
  const told = turnedOver(
    board(["late", "behind", "together"]),
    board(["no matter", "hollow", "behind"]),
  );
  expect(told).toEqual([
    { pair: "A–B", before: "late", after: "no matter" },
    { pair: "A–C", before: "behind", after: "hollow" },
  ]);
});
