/** Nothing that was written is shown twice or lost, and the walk goes on without the server. */
import { expect, it } from "vitest";
import type { AskRow, KitEntry, KitLine } from "../api/types";
import { dealtWith, logOf, measuredBy, nextAsk, sameLines, tickedOf } from "./kitlog";

const entry = (key: string, more: Partial<KitEntry> = {}): KitEntry => ({
  key,
  what: "reading",
  mic: "OL",
  to: "snare",
  metres: 1.2,
  ...more,
});
const line = (key: string, more: Partial<KitEntry> = {}) =>
  ({ ...entry(key, more), by: "demo", at: "2026-11-26T12:00:00Z" }) as KitLine;
const none = () => ({ written: new Map<string, KitEntry>(), struck: new Set<string>() });

it("has each line once, what is on its way last", () => {
  const mine = none();
  mine.written.set("b", entry("b"));
  mine.written.set("c", entry("c"));
  const log = logOf([line("a"), line("b")], [entry("c")], mine);
  expect(log.map((e) => e.key)).toEqual(["a", "b", "c"]);
  expect(log[0]).toEqual({ ...entry("a"), at: "2026-11-26T12:00:00Z" });
});

it("is the same log once what was written here has come back with its time, and no other is", () => {
  const written = [entry("a"), entry("b")];
  expect(sameLines(written, logOf([line("a"), line("b")], [], none()))).toBe(true);
  expect(sameLines(written, [entry("a")])).toBe(false);
  expect(sameLines([entry("a")], written)).toBe(false);
  expect(sameLines(written, [entry("a"), entry("c")])).toBe(false);
});

it("lets what has come back be struck out by somebody else", () => {
  const mine = none();
  mine.written.set("a", entry("a"));
  logOf([line("a")], [], mine);
  expect(logOf([], [], mine)).toEqual([]);
});

it("leaves out at once what was struck here", () => {
  const mine = none();
  mine.struck.add("a");
  expect(logOf([line("a"), line("b")], [], mine).map((e) => e.key)).toEqual(["b"]);
});

const ask = (mic: string, to: string | null, state: AskRow["state"], read_m: number | null) =>
  ({ mic, to, state, read_m }) as AskRow;
const ASKS = [
  ask("OL", "snare", "good", 1.2),
  ask("OR", "snare", "to read", null),
  ask("OL", null, "to read", null),
  ask("OL", "OR", "to read", null),
];

it("goes on past what was read or left since the last answer, whichever end was named", () => {
  expect(nextAsk(ASKS, [])).toBe(1);
  expect(nextAsk(ASKS, [entry("a", { mic: "OR" })])).toBe(2);
  const left = [entry("a", { mic: "OR" }), entry("b", { what: "skip", to: null, metres: null })];
  expect(nextAsk(ASKS, left)).toBe(3);
  const last = entry("c", { mic: "OR", to: "OL" });
  expect(nextAsk(ASKS, [...left, last])).toBeNull();
  expect(dealtWith(ASKS, [last])).toEqual(new Set([3]));
});

it("a mic touched afterwards is no longer dealt with", () => {
  const read = entry("a");
  expect(dealtWith(ASKS, [read])).toEqual(new Set([0]));
  expect(dealtWith(ASKS, [read, entry("b", { what: "touched" })])).toEqual(new Set());
});

it("a cord that is just taut deals with a reading, one that is not asks again", () => {
  const held = (cord: "same" | "nearer" | "further") => ({
    ...entry("c", { mic: "OR", metres: null }),
    what: "cord" as const,
    like: "OL",
    cord,
  });
  const asks = [ask("OR", "snare", "to read", null)];
  expect(dealtWith(asks, [held("same")])).toEqual(new Set([0]));
  expect(dealtWith(asks, [held("nearer")])).toEqual(new Set());
  expect(dealtWith(asks, [held("further")])).toEqual(new Set());
});

it("is measured by a reading or a taut cord, and by nothing else that is written", () => {
  const said = (what: KitEntry["what"], more: Partial<KitEntry> = {}) =>
    measuredBy([entry("a", { what, metres: null, ...more })]);
  expect(said("reading", { metres: 1.2 })).toBe(true);
  expect(said("cord", { like: "OR", cord: "same" })).toBe(true);
  expect(said("cord", { like: "OR", cord: "nearer" })).toBe(false);
  expect([said("tick"), said("skip"), said("touched")]).toEqual([false, false, false]);
});

it("a mic is up by what was said of it last", () => {
  const said = (what: "tick" | "untick" | "touched", mic: string) =>
    entry(`${what} ${mic}`, { what, mic, to: null, metres: null });
  const log = [said("tick", "OL"), said("tick", "OR"), said("untick", "OR"), said("touched", "OL")];
  expect([...tickedOf(log)]).toEqual(["OL"]);
  expect([...tickedOf([...log, said("tick", "OR")])]).toEqual(["OL", "OR"]);
});
