import { describe, expect, it } from "vitest";
import type { AlignRow, Heard } from "../api/types";
import {
  asAligned,
  asCame,
  asPlanned,
  isOn,
  loudness,
  mixOf,
  NOTHING,
  same,
  trims,
  waysOf,
} from "./ways";

const track = (channel: string, more: Partial<Heard> = {}): Heard => ({
  channel,
  gain_db: -3,
  pan: 0,
  side: false,
  heard: true,
  why: "",
  flip: false,
  later: 0,
  source: { file: 0, channel: 0, begins: 0, frames: 1 },
  ...more,
});

const row = (channel: string, more: Partial<AlignRow> = {}): AlignRow => ({
  channel,
  later: 10,
  flip: false,
  on: [],
  left_ms: [],
  why_not: "",
  by_plan: false,
  ...more,
});

const TRACKS = [track("ST"), track("SB", { flip: true, later: 7 }), track("RL", { heard: false })];

describe("what is done to channels", () => {
  it("is nothing, or as planned, or as the table has it", () => {
    expect(asCame(TRACKS)).toEqual({ ST: NOTHING, SB: NOTHING, RL: NOTHING });
    expect(asPlanned(TRACKS).SB).toEqual({ flip: true, later: 7 });
    const rows = [row("ST", { flip: true }), row("SB", { why_not: "not heard" })];
    const to = asAligned(TRACKS, rows);
    expect(to).toEqual({ ST: { flip: true, later: 10 }, SB: NOTHING, RL: NOTHING });
    expect(same(to, asPlanned(TRACKS))).toBe(false);
    expect(same(to, { ...to })).toBe(true);
  });

  it("leaves out what the balance mutes, unless it is wanted alone", () => {
    const mix = mixOf(TRACKS);
    expect(TRACKS.map((t) => isOn(mix, t.channel))).toEqual([true, true, false]);
    const alone = { ...mix, alone: ["RL"] };
    expect(TRACKS.map((t) => isOn(alone, t.channel))).toEqual([false, false, true]);
    const ways = waysOf(
      TRACKS,
      asPlanned(TRACKS),
      { ...mix, more: { ST: 2 }, pan: { SB: -40 } },
      -1,
    );
    expect(ways.map((w) => w.db)).toEqual([-2, -4, -4]);
    expect(ways[1]).toEqual({ flip: true, later: 7, db: -4, pan: -40, side: false, on: true });
  });
});

describe("loudness", () => {
  const tone = Float32Array.from({ length: 4800 }, (_, n) => Math.sin((2 * Math.PI * n) / 48));
  const way = { flip: false, later: 0, db: 0, pan: 0, side: false, on: true };

  it("is the power of what is heard: twice the tone 6 dB more, turned over nothing", () => {
    const one = loudness([[tone]], [way]);
    // A sine of amplitude 1 has the mean power one half; equal power panning keeps it.
    expect(one).toBeCloseTo(10 * Math.log10(0.5), 2);
    expect(loudness([[tone, tone]], [way, way])).toBeCloseTo(one + 6.02, 2);
    expect(loudness([[tone, tone]], [way, { ...way, flip: true }])).toBeLessThan(-100);
    expect(loudness([[tone, tone]], [way, { ...way, on: false }])).toBeCloseTo(one, 6);
    // Half a wave later it takes away, too.
    expect(loudness([[tone, tone]], [way, { ...way, later: 24 }])).toBeLessThan(one - 15);
    expect(loudness([[tone]], [{ ...way, pan: 100 }])).toBeCloseTo(one, 6);
    // A side is there on both sides, and takes nothing away from a middle.
    expect(loudness([[tone]], [{ ...way, side: true }])).toBeCloseTo(one + 3.01, 2);
  });

  it("brings the louder side down to the softer", () => {
    expect(trims(-20, -23)).toEqual([-3, 0]);
    expect(trims(-25, -23)).toEqual([0, -2]);
  });
});
