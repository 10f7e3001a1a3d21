/** What is only shown leaves the kept layout alone; what is read finds what is meant. */
import { readFileSync } from "node:fs";
import { expect, it } from "vitest";
import type { Layout } from "../api/types";
import {
  channelOf,
  channelsOf,
  decisionOn,
  micOf,
  partnerOf,
  swept,
  techniqueOf,
  withChannels,
  withMic,
  withMics,
} from "./edits";

const file = new URL("../../../demo/b-turned-pair.layout.json", import.meta.url);
const text = readFileSync(file, "utf8");
const layout: Layout = JSON.parse(text);
const untouched = () => expect(JSON.stringify(layout)).toBe(JSON.stringify(JSON.parse(text)));

it("throws only the asked switch", () => {
  const next = withMic(layout, "SB", { cable_inverted: true });
  expect(next.mics.filter((m) => m.cable_inverted).map((m) => m.id)).toEqual(["SB"]);
  expect(withMic(layout, "XX", { cable_inverted: true })).toBe(layout);
  untouched();
});

it("knows the tracks of a mic by their order and replaces them by name", () => {
  const first = channelOf(layout, "KI") as NonNullable<ReturnType<typeof channelOf>>;
  const split = { ...layout, channels: [...(layout.channels ?? []), { ...first, id: "KI.2" }] };
  expect(channelsOf(split, "KI").map((c) => c.id)).toEqual(["KI", "KI.2"]);
  const next = withChannels(split, [{ ...first, id: "KI.2", pan: 20 }]);
  expect(channelsOf(next, "KI").map((c) => c.pan)).toEqual([null, 20]);
  expect(channelOf({ ...layout, channels: undefined as never }, "KI")).toBeUndefined();
  untouched();
});

it("replaces mics by name and passes over those that are not there", () => {
  const mic = { ...(micOf(layout, "OL") as Layout["mics"][number]), name: "Far" };
  const next = withMics(layout, [mic, { ...mic, id: "XX" }]);
  expect(next.mics.map((m) => m.id)).toEqual(layout.mics.map((m) => m.id));
  expect(micOf(next, "OL")?.name).toBe("Far");
  untouched();
});

it("shows the mics of a technique where a number puts them, and the number", () => {
  const taken = { id: "pair", technique: "pair-turned", mics: ["OL", "OR"], numbers: { width: 1 } };
  const used = { ...layout, techniques: [taken, { ...taken, id: "other", mics: ["T1"] }] };
  const next = swept(used, "pair", "width", 2, [
    { id: "OL", position_m: [0, 0, 1], aim: [0, 0, -1] },
    { id: "XX", position_m: [9, 9, 9], aim: [0, 0, -1] },
  ]);
  expect(micOf(next, "OL")).toMatchObject({ position_m: [0, 0, 1], aim: [0, 0, -1] });
  expect(micOf(next, "OR")).toEqual(micOf(layout, "OR"));
  expect(next.techniques?.map((t) => t.numbers?.width)).toEqual([2, 1]);
  expect(techniqueOf(next, "T1")?.id).toBe("other");
});

it("knows a partner and a decision whichever mic is named first", () => {
  expect([partnerOf(layout, "OL"), partnerOf(layout, "OR"), partnerOf(layout, "KI")]).toEqual([
    "OR",
    "OL",
    null,
  ]);
  const kept = { a: "OL", b: "OR", source: "kick", reason: "by ear", by: "", at: "", stood: null };
  const decided = { ...layout, decisions: [kept] } as Layout;
  expect(decisionOn(decided, { a: "OR", b: "OL", source: "kick" })?.reason).toBe("by ear");
  expect(decisionOn(decided, { a: "OR", b: "OL", source: "snare" })).toBeUndefined();
});
