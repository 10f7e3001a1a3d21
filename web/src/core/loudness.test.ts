/** The tapes hold every track once; flags never lie on each other; what turns over is told. */
import { readFileSync } from "node:fs";
import { expect, it } from "vitest";
import type { Board, Layout } from "../api/types";
import { faderIn, fits, lanesOf, movedWith, rowsOf, turnedOver } from "./loudness";

const file = new URL("../../../demo/b-turned-pair.layout.json", import.meta.url);
const layout: Layout = JSON.parse(readFileSync(file, "utf8"));

it("puts every track on one tape, drums first and the kit last", () => {
  const rows = rowsOf(layout);
  expect(rows[0]?.tracks.map((t) => t.id)).toEqual(["KI", "KO"]);
  expect(rows.at(-1)).toMatchObject({ name: "Kit" });
  const every = rows.flatMap((r) => r.tracks.map((t) => t.id));
  expect([...every].sort()).toEqual((layout.channels ?? []).map((c) => c.id).sort());
});

it("keeps a level within the fader's ends, in half decibels", () => {
  expect([fits(-90), fits(40), fits(-3.3), fits(2.74)]).toEqual([-30, 12, -3.5, 2.5]);
});

it("reads a fader from the current balance, and what is usual where nobody set it", () => {
  const faders = [
    { channel: "ST", db: -4 },
    { channel: "OL", muted: true },
  ];
  const mixed = { ...layout, balances: [{ id: "b", name: "B", faders }] } as unknown as Layout;
  expect(faderIn({ ...mixed, current: "b" }, "ST", 0)).toBe(-4);
  expect(faderIn({ ...mixed, current: "b" }, "OL", -8)).toBe(-8);
  expect(faderIn(mixed, "ST", 0)).toBe(0);
});

it("moves a group together, and a track without one alone", () => {
  const channels = (layout.channels ?? []).map((c) =>
    ["ST", "SB"].includes(c.id) ? { ...c, group: "Snare" } : c,
  );
  expect(movedWith({ ...layout, channels }, "SB")).toEqual(["ST", "SB"]);
  expect(movedWith(layout, "SB")).toEqual(["SB"]);
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
