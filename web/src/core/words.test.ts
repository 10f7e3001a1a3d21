/** Names, colours and sums that more than one drawing shares. */
import { readFileSync } from "node:fs";
import { describe, expect, it } from "vitest";
import type { Layout, PairRow } from "../api/types";
import { channelOf, withChannels } from "./edits";
import {
  bodySums,
  drumColour,
  firstDrum,
  isFlipped,
  micColour,
  sourceName,
  spoken,
  the,
} from "./words";

const file = new URL("../../../demo/a-square-pair.layout.json", import.meta.url);
const layout: Layout = JSON.parse(readFileSync(file, "utf8"));
const row = (sign: number) => ({ sign, body_db: -7.2, flipped_body_db: 5.8 }) as PairRow;

describe("words", () => {
  it("calls the sums as wired and flipped where the sign is sure", () => {
    expect(bodySums(row(1)).map((s) => s.db)).toEqual([-7.2, 5.8]);
    expect(bodySums(row(-1))[0]?.name).toBe("body as wired");
  });

  it("claims no wiring where the sign is unsure", () => {
    const sums = bodySums(row(0));
    expect(sums.map((s) => s.db)).toEqual([5.8, -7.2]);
    expect(sums.map((s) => s.name).join()).not.toContain("wired");
  });

  it("colours a mic by the drum it is for, or by its role", () => {
    const colours = Object.fromEntries(layout.mics.map((m) => [m.id, micColour(m, layout)]));
    expect(colours).toMatchObject({
      KI: "var(--kick)",
      ST: "var(--snare)",
      T1: "var(--tom)",
      FT: "var(--tom)",
      HH: "var(--cymbal)",
      OL: "var(--ring)",
    });
    expect(drumColour("floor")).toBe("var(--tom)");
  });

  it("two flips are none", () => {
    const mic = layout.mics[0];
    if (!mic) throw new Error("no mic");
    const track = channelOf(layout, mic.id);
    if (!track) throw new Error("no track");
    const flipped = withChannels(layout, [{ ...track, preamp_flip: true }]);
    expect(isFlipped(mic, layout)).toBe(false);
    expect(isFlipped(mic, flipped)).toBe(true);
    expect(isFlipped({ ...mic, cable_inverted: true }, flipped)).toBe(false);
  });

  it("finds the reference drums and names sources", () => {
    expect(firstDrum(layout, "kick").name).toBe("Kick");
    expect(sourceName(layout, "crash-l")).toBe("Crash L");
    expect(sourceName(layout, "gone")).toBe("gone");
    const names = ["Floor tom", "Crash R", "FT", "Öl", ""];
    expect(names.map(spoken)).toEqual(["floor tom", "crash R", "FT", "öl", ""]);
    const ends = [
      "Floor tom",
      "Rack 1",
      "snare, centre of the head",
      "rack 2, by the rim",
      "the floor",
    ];
    expect(ends.map(the)).toEqual([
      "the floor tom",
      "rack 1",
      "the snare, centre of the head",
      "rack 2, by the rim",
      "the floor",
    ]);
  });
});
