import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { chunks } from "./spans";
import { type AudioDevice, TakePlayer, type Way } from "./takePlayer";

class Param {
  value = 1;
  readonly told: [string, number, number][] = [];
  cancelScheduledValues() {}
  setTargetAtTime(to: number, at: number) {
    this.told.push(["to", to, at]);
  }
  setValueAtTime(to: number, at: number) {
    this.told.push(["is", to, at]);
  }
  linearRampToValueAtTime(to: number, at: number) {
    this.told.push(["ramp", to, at]);
  }
  get last() {
    return this.told.at(-1)?.[1];
  }
}

/** A device whose clock is moved by hand, and that writes down what it makes. */
function device() {
  const made = { gains: [] as Param[], delays: [] as Param[], pans: [] as Param[] };
  const started: { when: number; buffer: string }[] = [];
  let stopped = 0;
  const node = (more: object = {}) => {
    const self = { connect: (to: unknown) => to, disconnect() {}, ...more };
    return self;
  };
  const keep = (list: Param[]) => {
    const param = new Param();
    list.push(param);
    return param;
  };
  const audio = {
    currentTime: 1,
    destination: {},
    createGain: () => node({ gain: keep(made.gains) }),
    createDelay: () => node({ delayTime: keep(made.delays) }),
    createStereoPanner: () => node({ pan: keep(made.pans) }),
    createChannelSplitter: () => node(),
    createChannelMerger: () => node(),
    createBufferSource() {
      const source = node({
        buffer: "",
        start: (when: number) =>
          started.push({ when, buffer: (source as never as { buffer: string }).buffer }),
        stop: () => stopped++,
      });
      return source;
    },
    resume: async () => {},
    close: async () => {},
  };
  return { audio, made, started, count: () => stopped };
}

const RATE = 48_000;
const WAY: Way = { flip: false, later: 0, db: 0, pan: 0, side: false, on: true };

/** Of one take, or of two with as many tracks, the other at half the rate. */
function player(tracks = 2, piece?: (g: number) => Promise<string>, takes = 1) {
  const d = device();
  const asked: string[] = [];
  const failed: string[] = [];
  const made = new TakePlayer(
    d.audio as unknown as AudioDevice,
    Array.from({ length: takes }, (_, take) => ({
      rate: RATE / (take + 1),
      group: 8,
      tracks: Array.from({ length: tracks }, () => ({ side: false })),
      piece: (g, span) => {
        asked.push(`${g} ${span.begin}`);
        return (piece?.(g) ?? Promise.resolve(`${g} ${span.begin}`)) as never;
      },
    })),
    0.5,
    (error) => failed.push(error?.message ?? "end"),
  );
  // A gain each channel comes in by, and one of each of its two delays.
  const taps = (n: number) => [d.made.gains[2 + 3 * n], d.made.gains[3 + 3 * n]] as [Param, Param];
  return { ...d, player: made, asked, failed, taps };
}

beforeEach(() => void vi.useFakeTimers());
afterEach(() => void vi.useRealTimers());
const settle = (ms = 0) => vi.advanceTimersByTimeAsync(ms);

describe("a take while it is heard", () => {
  it("turns a channel over where it is heard, and delays it on the silent side", () => {
    const { player: p, taps, made } = player();
    p.apply([WAY, { ...WAY, flip: true, db: -20 }]);
    expect(taps(0).map((t) => t.last)).toEqual([1, undefined]);
    expect(taps(1)[0].last).toBeCloseTo(-0.1, 6);
    expect(made.delays.every((d) => d.told.length === 0)).toBe(true);
    p.apply([
      { ...WAY, later: 96 },
      { ...WAY, on: false, pan: -50 },
    ]);
    // The silent delay is set, the heard one fades out: neither is moved while it sounds.
    expect(made.delays.map((d) => d.last)).toEqual([undefined, 96 / RATE, undefined, undefined]);
    expect(taps(0).map((t) => t.last)).toEqual([0, 1]);
    expect(taps(1)[0].last).toBe(0);
    expect(made.pans[1]?.last).toBe(-0.5);
    p.apply([{ ...WAY, later: 48 }, WAY]);
    expect(made.delays[0]?.last).toBe(48 / RATE);
    expect(taps(0).map((t) => t.last)).toEqual([1, 0]);
  });

  it("lets every part follow the one before on the sample, all groups at once", async () => {
    const { player: p, started, asked } = player(10);
    p.play({ parts: chunks(0, 9 * RATE, RATE).map((s) => [s]), loop: false });
    await settle();
    expect(started.map((s) => s.buffer)).toEqual(["0 0", "1 0"]);
    expect(started[0]?.when).toBe(started[1]?.when);
    expect(asked).toEqual(["0 0", "1 0", `0 ${4 * RATE}`, `1 ${4 * RATE}`]);
    const first = started[0]?.when ?? 0;
    expect(first * RATE).toBeCloseTo(Math.round(first * RATE), 6);
  });

  it("loops, counts no gap where all is in time, and stops at once", async () => {
    const { player: p, started, audio, count } = player(1);
    const spans = [
      { begin: 0, count: RATE },
      { begin: 5 * RATE, count: RATE / 2 },
    ];
    p.play({ parts: spans.map((s) => [s]), loop: true });
    for (let n = 0; n < 40; n++) {
      await settle(150);
      audio.currentTime += 0.15;
    }
    const apart = started.slice(1).map((s, n) => s.when - (started[n]?.when ?? 0));
    expect(apart.length).toBeGreaterThan(6);
    for (const [n, s] of apart.entries()) expect(s).toBeCloseTo(n % 2 ? 0.5 : 1, 9);
    expect(p.late).toBe(0);
    const { number, sample } = p.position() ?? { number: -1, sample: -1 };
    const begin = spans[number]?.begin ?? Number.NaN;
    expect(sample - begin).toBeGreaterThanOrEqual(0);
    expect(sample - begin).toBeLessThan(spans[number]?.count ?? 0);
    const before = started.length;
    p.stop();
    await settle(1000);
    expect(started.length).toBe(before);
    expect(count()).toBeGreaterThan(0);
    expect(p.position()).toBeNull();
  });

  it("begins every part of two takes at one moment, each in its own samples", async () => {
    const { player: p, started, audio, taps, made } = player(10, undefined, 2);
    const parts = [
      [
        { begin: 100, count: RATE },
        { begin: 700, count: RATE / 2 },
      ],
      [
        { begin: 5 * RATE, count: RATE / 2 },
        { begin: RATE, count: RATE / 4 },
      ],
    ];
    p.play({ parts, loop: true });
    await settle();
    expect(started.slice(0, 4).map((s) => s.buffer)).toEqual(["0 100", "1 100", "0 700", "1 700"]);
    expect(new Set(started.slice(0, 4).map((s) => s.when)).size).toBe(1);
    const when = started[0]?.when ?? 0;
    audio.currentTime = when + 0.25;
    expect(p.position(0)).toEqual({ number: 0, sample: expect.closeTo(100 + RATE / 4, 6) });
    expect(p.position(1)).toEqual({ number: 0, sample: expect.closeTo(700 + RATE / 8, 6) });
    expect(p.position(2)).toBeNull();
    expect(started.slice(4).map((s) => s.buffer)).toEqual([
      `0 ${5 * RATE}`,
      `1 ${5 * RATE}`,
      `0 ${RATE}`,
      `1 ${RATE}`,
    ]);
    for (const s of started.slice(4)) expect(s.when).toBeCloseTo(when + 1, 9);
    // The channels of the second take come after those of the first, and are late by its own clock.
    p.apply(Array.from({ length: 20 }, (_, n) => ({ ...WAY, on: n >= 10, later: 48 })));
    expect(taps(9).map((t) => t.last)).toEqual([0, 0]);
    expect(taps(10).map((t) => t.last)).toEqual([0, 1]);
    expect(made.delays[2 * 9 + 1]?.last).toBe(48 / RATE);
    expect(made.delays[2 * 10 + 1]?.last).toBe(96 / RATE);
  });

  it("says so where sound comes too late, and goes on", async () => {
    let slow = 0;
    const {
      player: p,
      started,
      audio,
    } = player(1, (g) => {
      const wait = slow;
      return new Promise((done) => setTimeout(() => done(`${g}`), wait));
    });
    p.play({ parts: [[{ begin: 0, count: 4 * RATE }]], loop: true });
    await settle(10);
    expect(started).toHaveLength(1);
    slow = 4000;
    await settle(300);
    audio.currentTime += 5;
    await settle(5000);
    expect(p.late).toBe(1);
    expect(started[1]?.when).toBeGreaterThan(audio.currentTime);
  });

  it("begins only when what follows is there, where sound is long in coming", async () => {
    const begun = async (ms: number) => {
      const slow = (g: number) => new Promise<string>((done) => setTimeout(() => done(`${g}`), ms));
      const { player: p, started } = player(1, slow);
      const spans = [0, 1].map((n) => ({ begin: n * RATE, count: RATE }));
      p.play({ parts: spans.map((s) => [s]), loop: true });
      await settle(ms + 10);
      const once = started.length;
      await settle(ms);
      expect(started.length).toBeGreaterThan(0);
      p.stop();
      return once;
    };
    // Of a second of sound: half of it is in time for the next, more may not be.
    expect(await begun(500)).toBe(1);
    expect(await begun(501)).toBe(0);
    // What follows may not come at all: it is waited for no longer than the first part is long.
    let come = 0;
    const cut = () => new Promise<string>((done) => come++ || setTimeout(() => done(""), 900));
    const lone = player(1, cut);
    lone.player.play({ parts: [[{ begin: 0, count: RATE }]], loop: true });
    await settle(1000);
    lone.audio.currentTime += 0.95;
    await settle(300);
    expect(lone.started).toEqual([]);
    lone.audio.currentTime += 0.1;
    await settle(300);
    expect(lone.started.length).toBe(1);
    lone.player.stop();
    // Stopped meanwhile, it does not begin.
    const slow = () => new Promise<string>((done) => setTimeout(() => done(""), 900));
    const { player: p, started } = player(1, slow);
    p.play({ parts: [[{ begin: 0, count: RATE }]], loop: true });
    await settle(1000);
    p.stop();
    await settle(2000);
    expect(started).toEqual([]);
  });

  it("tells when it has come to its end", async () => {
    const { player: p, failed, audio } = player(1);
    p.play({ parts: [[{ begin: 0, count: RATE }]], loop: false });
    await settle(200);
    expect(failed).toEqual([]);
    audio.currentTime += 1.2;
    await settle(200);
    expect(failed).toEqual(["end"]);
  });

  it("tells why no sound came", async () => {
    const { player: p, failed } = player(1, () =>
      Promise.reject(new Error("The take was deleted")),
    );
    p.play({ parts: [[{ begin: 0, count: 10 }]], loop: false });
    await settle();
    expect(failed).toEqual(["The take was deleted"]);
  });
});
