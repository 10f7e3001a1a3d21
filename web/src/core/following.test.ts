/** A mic under the hand: what is drawn at once, what follows, and what is overtaken. */
import { beforeEach, describe, expect, it, vi } from "vitest";
import type { Board, Conflict, Follows, Layout, LayoutOut, Mic } from "../api/types";
import { Editor } from "./editor";
import { type Move, merged } from "./following";
import type { Wire } from "./world";

const mic = (id: string, x: number) => ({ id, position_m: [x, 0, 1], aim: [0, 0, -1] }) as Mic;
const still = {
  name: "still",
  mics: [mic("OL", -1), mic("OR", 1)],
  stereo_pairs: [{ left: "OL", right: "OR" }],
  decisions: [],
} as unknown as Layout;
const out = { id: 7, version: 1, doc: still, can_undo: false, head_key: null } as LayoutOut;

const row = (source: string, words: string) => ({ source, words });
const RING = { kind: "circle", points_m: [] };
const board = (of: Layout) =>
  ({
    mic_ids: ["OL", "OR"],
    tape_m: of.mics.map((m) => [m.position_m[0]]),
    path_m: [[0], [0]],
    arrival_s: [[0], [0]],
    after_gain_db: [[0], [0]],
    sign: [[1], [1]],
    aim: { OL: "down", OR: "down" },
    blocked: { OL: "", OR: "" },
    counts: { of: of.mics[1]?.position_m[0] },
    focus: {
      a: "OL",
      b: "OR",
      source: "snare",
      rows: [row("snare", "whole"), row("hats", "whole")],
      curve_db: [0],
      places: { anchor: "OL", mover: "OR", ring: RING, swing: { words: "whole" } },
    },
  }) as unknown as Board;

const told = (m: Mic, change: object = {}) =>
  ({
    mic: m.id,
    tape_m: [m.position_m[0]],
    path_m: [2],
    arrival_s: [3],
    after_gain_db: [4],
    sign: [-1],
    aim: "at the snare",
    blocked: "",
    pair: {
      a: "OL",
      b: "OR",
      distances: [{ source: "snare", tape_b_m: m.position_m[0] }],
      in_words: {
        rows: [row("snare", "hand")],
        source: "kick",
        curve_db: [5],
        flipped_curve_db: [6],
        spots: { swing: { words: "hand" } },
        ring: null,
        ...change,
      },
    },
  }) as unknown as Follows;

/** Without words. */
function numbers(m: Mic): Follows {
  const { pair, ...rest } = told(m);
  return { ...rest, aim: null, blocked: null, pair: pair && { ...pair, in_words: null } };
}

describe("a board with what follows the hand", () => {
  const whole = board(still);

  it("takes the mic's rows and the open pair, and leaves the rest", () => {
    const now = merged(whole, told(mic("OR", 1.5)));
    expect(now.tape_m).toEqual([[-1], [1.5]]);
    expect([now.path_m[1], now.arrival_s[1], now.after_gain_db[1], now.sign[1]]).toEqual([
      [2],
      [3],
      [4],
      [-1],
    ]);
    expect(now.path_m[0]).toBe(whole.path_m[0]);
    expect(now.aim).toEqual({ OL: "down", OR: "at the snare" });
    expect(now.blocked).toBe(whole.blocked);
    expect(now.counts).toBe(whole.counts);
    expect(now.focus?.rows.map((r) => r.words)).toEqual(["hand", "whole"]);
    expect([now.focus?.source, now.focus?.curve_db]).toEqual(["kick", [5]]);
    expect(now.focus?.places?.ring).toBe(RING);
    expect(now.focus?.places?.swing.words).toBe("hand");
  });

  it("keeps a pair that is another one, and a board without the mic", () => {
    const { pair, ...rest } = told(mic("OR", 2));
    expect(merged(whole, { ...rest, pair: pair && { ...pair, a: "KI" } }).focus).toBe(whole.focus);
    expect(merged(whole, { ...told(mic("OR", 2)), pair: null }).focus).toBe(whole.focus);
    expect(merged(whole, told(mic("XX", 2)))).toBe(whole);
  });

  it("leaves what is read as it was where no words came", () => {
    const now = merged(whole, numbers(mic("OR", 2)));
    expect([now.aim, now.blocked]).toEqual([whole.aim, whole.blocked]);
    expect(now.focus?.rows.map((r) => [r.words, r.tape_b_m])).toEqual([
      ["whole", 2],
      ["whole", undefined],
    ]);
    expect([now.focus?.source, now.focus?.places]).toEqual(["snare", whole.focus?.places]);
  });

  it("takes a ring that has changed, and none for two that are not kept equal", () => {
    const ring = { kind: "none", points_m: [] };
    expect(merged(whole, told(mic("OR", 2), { ring })).focus?.places?.ring).toBe(ring);
    expect(merged(whole, told(mic("OR", 2), { spots: null })).focus?.places).toBe(
      whole.focus?.places,
    );
  });
});

describe("a hand that moves a mic", () => {
  let answers: ((fail?: Error) => void)[];
  let moves: Move[];
  /** The same for what is asked with words. */
  let reads: (() => void)[];
  let readings: Move[];
  let computed: Layout[];
  let closeOf: unknown;
  let editor: Editor;
  const settle = (ms = 1) => vi.advanceTimersByTimeAsync(ms);
  const shown = () => editor.snapshot().board?.tape_m[1]?.[0];

  beforeEach(async () => {
    vi.useFakeTimers();
    [answers, moves, reads, readings, computed] = [[], [], [], [], []];
    closeOf = null;
    const wire: Wire = {
      compute: (doc) => {
        computed.push(doc);
        return Promise.resolve(board(doc));
      },
      follow: (move) => {
        (move.words ? readings : moves).push(move);
        return new Promise((yes, no) => {
          if (move.words) reads.push(() => yes({ ...told(move.mic), close: closeOf } as Follows));
          else answers.push((fail) => (fail ? no(fail) : yes(numbers(move.mic))));
        });
      },
      save: () => Promise.reject(new Error("not here")),
      step: () => Promise.reject(new Error("not here")),
      fateOf: (error) => ((error as Error).message === "no such place" ? "refused" : "away"),
      conflictOf: () => ({}) as Conflict,
    };
    const store = { getItem: () => null, setItem: () => undefined, removeItem: () => undefined };
    editor = new Editor(out, wire, store);
    await settle();
    computed.length = 0;
  });

  it("tells who watches at once, and shows drawings what was there before", async () => {
    const seen: (number | undefined)[] = [];
    const leave = editor.following.watch((m) => seen.push(m?.position_m[0]));
    editor.move(mic("OR", 1.1));
    editor.move(mic("OR", 1.2));
    expect(seen).toEqual([undefined, 1.1, 1.2]);
    const { underHand, doc, whole } = editor.snapshot();
    expect([underHand, doc]).toEqual(["OR", still]);
    answers[0]?.();
    await settle();
    expect(editor.snapshot().doc.mics[1]?.position_m[0]).toBe(1.1);
    expect(editor.snapshot().whole).toBe(whole);
    leave();
    editor.move(mic("OR", 1.3));
    expect(seen).toHaveLength(3);
  });

  it("tells how a close mic is at its drum as words come, and no more once the hand is gone", async () => {
    const terms = { terms: { height_m: 0.04 }, cymbal: null, gap_m: null };
    const seen: unknown[] = [];
    editor.following.close.subscribe(() => seen.push(editor.following.close.get()));
    editor.move(mic("OR", 1.1));
    answers[0]?.();
    await settle();
    expect([seen, readings.length]).toEqual([[], 1]);
    closeOf = terms;
    reads[0]?.();
    await settle();
    expect(seen).toEqual([{ mic: "OR", terms }]);
    editor.drop(mic("OR", 1.1));
    expect(seen).toEqual([{ mic: "OR", terms }, null]);
  });

  it("says that a hand is on a mic, asks nothing, and takes that back", async () => {
    const seen: (number | undefined)[] = [];
    editor.following.watch((m) => seen.push(m?.position_m[0]));
    const before = editor.snapshot();
    editor.following.hold(mic("OR", 1));
    await settle(1000);
    editor.following.stop();
    await settle(1000);
    expect(seen).toEqual([undefined, 1, undefined]);
    expect([moves, readings, computed]).toEqual([[], [], []]);
    expect(editor.snapshot()).toBe(before);
  });

  it("asks three at a time, the newest last, and drops an answer that was overtaken", async () => {
    for (let i = 1; i <= 9; i++) {
      editor.move(mic("OR", i));
      await settle(16);
    }
    expect(moves.map((m) => m.mic.position_m[0])).toEqual([1, 2, 3]);
    answers[1]?.();
    await settle();
    expect(shown()).toBe(2);
    expect(moves.at(-1)?.mic.position_m[0]).toBe(9);
    answers[0]?.();
    await settle();
    expect(shown()).toBe(2);
    answers[3]?.();
    await settle();
    expect(shown()).toBe(9);
  });

  it("drops what comes after the hand let go, and shows the mic where it did", async () => {
    editor.move(mic("OR", 2));
    editor.drop(mic("OR", 3));
    expect(editor.snapshot().doc.mics[1]?.position_m[0]).toBe(3);
    expect(editor.snapshot().underHand).toBeNull();
    answers[0]?.();
    await settle();
    expect(shown()).toBe(1);
  });

  it("asks for the whole board when the hand rests, not before", async () => {
    editor.move(mic("OR", 2));
    answers[0]?.();
    await settle(150);
    editor.move(mic("OR", 4));
    await settle(150);
    expect(computed).toEqual([]);
    answers[1]?.();
    await settle(60);
    expect(computed.map((d) => d.mics[1]?.position_m[0])).toEqual([4]);
    expect(editor.snapshot().board?.counts).toEqual({ of: 4 });
  });

  it("lays what follows the hand over a whole board that comes late", async () => {
    editor.open({ anchor: "OL", mover: "OR", source: null });
    editor.move(mic("OR", 6));
    answers[0]?.();
    await settle();
    expect(editor.snapshot().whole?.tape_m[1]).toEqual([1]);
    expect(shown()).toBe(6);
  });

  it("says that numbers are behind when answers are slow, and no more once they are not", async () => {
    editor.move(mic("OR", 2));
    await settle(290);
    expect(editor.snapshot().behind).toBe(false);
    await settle(20);
    expect(editor.snapshot().behind).toBe(true);
    editor.move(mic("OR", 3));
    answers[0]?.();
    await settle();
    expect(editor.snapshot().behind).toBe(true);
    answers[1]?.();
    await settle();
    expect(editor.snapshot().behind).toBe(false);
  });

  /** In so many steps at 60 a second; where words were asked for, in steps. */
  const wordsOf = async (steps: number, step_m: number) => {
    for (let i = 0; i < steps; i++) {
      editor.move(mic("OR", 2 + i * step_m));
      answers[i]?.();
      reads[readings.length - 1]?.();
      await settle(16);
    }
    expect(moves).toHaveLength(steps);
    return readings.map((m) => Math.round(((m.mic.position_m[0] ?? 0) - 2) / step_m));
  };

  it("asks for words as often as they can be read, beside the numbers", async () => {
    expect(await wordsOf(16, 0.004)).toEqual([0, 7, 14]);
  });

  it("asks for them more seldom while the hand is quick", async () => {
    expect(await wordsOf(34, 0.006)).toEqual([0, 16, 32]);
  });

  it("asks for them so seldom that to draw them takes a twentieth of the time", async () => {
    let now = 0;
    vi.spyOn(performance, "now").mockImplementation(() => (now += 10));
    expect(await wordsOf(34, 0.004)).toEqual([0, 13, 26]);
    vi.mocked(performance.now).mockRestore();
  });

  it("asks for them half as often of a quick hand", async () => {
    let now = 0;
    vi.spyOn(performance, "now").mockImplementation(() => (now += 10));
    expect(await wordsOf(54, 0.006)).toEqual([0, 25, 50]);
    vi.mocked(performance.now).mockRestore();
  });

  it("asks for them once a second however long the last took to draw", async () => {
    let now = 0;
    vi.spyOn(performance, "now").mockImplementation(() => (now += 300));
    expect(await wordsOf(70, 0.004)).toEqual([0, 63]);
    vi.mocked(performance.now).mockRestore();
  });

  it("asks once a frame however often the hand is told of, and for where it is at last", async () => {
    for (let i = 1; i <= 9; i++) {
      editor.move(mic("OR", i));
      answers[moves.length - 1]?.();
      await settle(4);
    }
    await settle(50);
    expect(moves.map((m) => m.mic.position_m[0])).toEqual([1, 3, 6, 9]);
  });

  it("asks for them more seldom where numbers come slowly", async () => {
    for (let i = 0; i < 12; i++) {
      editor.move(mic("OR", 2 + i));
      answers[i]?.();
      reads[readings.length - 1]?.();
      await settle(50);
    }
    expect(readings.map((m) => m.mic.position_m[0])).toEqual([2, 8]);
  });

  it("takes no number back with words that come late", async () => {
    editor.move(mic("OR", 2));
    await settle(16);
    editor.move(mic("OR", 3));
    answers[1]?.();
    reads[0]?.();
    await settle();
    expect(readings.map((m) => m.mic.position_m[0])).toEqual([2]);
    const row = editor.snapshot().board?.focus?.rows[0];
    expect([shown(), row?.tape_b_m, row?.words]).toEqual([3, 3, "hand"]);
    expect(editor.snapshot().doc.mics[1]?.position_m[0]).toBe(3);
  });

  it("asks once for the words of a place at which the hand stays", async () => {
    editor.move(mic("OR", 2));
    answers[0]?.();
    reads[0]?.();
    await settle(20);
    editor.move(mic("OR", 3));
    answers[1]?.();
    await settle(99);
    expect(readings.map((m) => m.mic.position_m[0])).toEqual([2]);
    await settle(2);
    expect(readings.map((m) => m.mic.position_m[0])).toEqual([2, 3]);
    reads[1]?.();
    await settle(500);
    expect([moves.length, readings.length]).toEqual([2, 2]);
    expect(shown()).toBe(3);
  });

  it("asks for no words of a place that the hand has left", async () => {
    for (const x of [2, 3]) {
      editor.move(mic("OR", x));
      answers[x - 2]?.();
      await settle(20);
    }
    editor.drop(mic("OR", 4));
    await settle(500);
    expect([moves.length, readings.length]).toEqual([2, 1]);
    reads[0]?.();
    await settle();
    expect(editor.snapshot().board?.focus?.rows[0]?.words).toBe("whole");
  });

  it("says what the core will not have", async () => {
    editor.move(mic("OR", 2));
    answers[0]?.(new Error("no such place"));
    await settle();
    expect(editor.snapshot().puzzled).toBe("no such place");
    await settle(16);
    editor.move(mic("OR", 3));
    answers[1]?.();
    await settle();
    expect(editor.snapshot().puzzled).toBe("");
  });

  it("draws a mic anew that is turned, and not with an older answer", async () => {
    const turned = (x: number) => ({ ...mic("OR", 1), aim: [x, 0, 0] }) as Mic;
    editor.move(turned(1), true);
    editor.move(turned(2), true);
    answers[0]?.();
    await settle();
    const { doc, underHand } = editor.snapshot();
    expect([doc.mics[1]?.aim[0], underHand]).toEqual([2, null]);
  });

  it("is over when something else is shown", async () => {
    editor.move(mic("OR", 2));
    editor.preview(still);
    answers[0]?.();
    await settle();
    expect(shown()).toBe(1);
    expect(editor.following.mic).toBeNull();
  });
});
