/** What followed the hand is newer than a board of a place that was left, and older than its own. */
import { beforeEach, describe, expect, it } from "vitest";
import type { Board, Follows, Layout, Mic } from "../api/types";
import { Trail } from "./trail";

const mic = (id: string, x: number) => ({ id, position_m: [x, 0, 1], aim: [0, 0, -1] }) as Mic;
const layout = (x: number, other = -1) =>
  ({ mics: [mic("OL", other), mic("OR", x)] }) as unknown as Layout;

/** Every number in it is where the mic stood, and so is the verdict. */
const board = (x: number) =>
  ({
    mic_ids: ["OL", "OR"],
    tape_m: [[-1], [x]],
    path_m: [[-1], [x]],
    arrival_s: [[-1], [x]],
    after_gain_db: [[-1], [x]],
    sign: [[1], [1]],
    aim: {},
    blocked: {},
    focus: { a: "OL", b: "OR", source: "snare", rows: [{ source: "snare", verdict: `at ${x}` }] },
  }) as unknown as Board;

const told = (x: number, words: boolean) =>
  ({
    mic: "OR",
    tape_m: [x],
    path_m: [x],
    arrival_s: [x],
    after_gain_db: [x],
    sign: [1],
    aim: null,
    blocked: null,
    pair: {
      a: "OL",
      b: "OR",
      distances: [{ source: "snare" }],
      in_words: words
        ? { rows: [{ source: "snare", verdict: `at ${x}` }], source: "snare", spots: null }
        : null,
    },
  }) as unknown as Follows;

const seen = (of: Board) => [of.tape_m[1]?.[0], of.focus?.rows[0]?.verdict];

describe("a board that comes late", () => {
  let trail: Trail;
  beforeEach(() => {
    trail = new Trail();
    const worded = trail.read(told(3, true), mic("OR", 3), board(0), mic("OR", 4));
    expect(seen(worded)).toEqual([3, "at 3"]);
    expect(seen(trail.show(told(4, false), mic("OR", 4), worded))).toEqual([4, "at 3"]);
  });

  it("is under the numbers and the words of a hand that has left its place", () => {
    const late = trail.over(board(1), layout(1), layout(0), mic("OR", 5));
    expect(seen(late)).toEqual([4, "at 3"]);
  });

  it("is as it is where the hand is now", () => {
    const own = trail.over(board(5), layout(5), layout(0), mic("OR", 5));
    expect(seen(own)).toEqual([5, "at 5"]);
  });

  it("is over words of a place before it, but not of the hand's own", () => {
    const hand = mic("OR", 5);
    const own = trail.over(board(5), layout(5), layout(5), hand);
    expect(seen(trail.read(told(2, true), mic("OR", 2), own, hand))).toEqual([5, "at 5"]);
    const said = trail.read(told(5, true), hand, { ...own, focus: board(0).focus }, hand);
    expect(seen(said)[1]).toBe("at 5");
    const away = trail.read(told(2, true), mic("OR", 2), own, mic("OR", 6));
    expect(seen(away)[1]).toBe("at 2");
  });

  it("of a mic that was turned meanwhile is of another place", () => {
    const turned = { ...mic("OR", 5), aim: [1, 0, 0] } as Mic;
    expect(seen(trail.over(board(5), layout(5), layout(0), turned))).toEqual([4, "at 3"]);
  });

  it("stays under what was said of where the hand let go, and that alone", () => {
    // Words were of a place before that: the board's are no older.
    expect(seen(trail.over(board(1), layout(1), layout(4), null))).toEqual([4, "at 1"]);
    expect(seen(trail.over(board(1), layout(1), layout(2), null))).toEqual([1, "at 1"]);
    expect(seen(trail.over(board(1), layout(1), layout(4), mic("OL", -2)))).toEqual([4, "at 1"]);
  });

  it("is as it is of the layout that was let go of, and where the mic is gone", () => {
    expect(seen(trail.over(board(4), layout(4), layout(4), null))).toEqual([4, "at 4"]);
    const without = { mics: [mic("OL", -1)] } as unknown as Layout;
    expect(seen(trail.over(board(1), layout(1), without, null))).toEqual([1, "at 1"]);
  });

  it("is as it is once all of it was forgotten", () => {
    trail.forget();
    expect(seen(trail.over(board(1), layout(1), layout(0), mic("OR", 5)))).toEqual([1, "at 1"]);
  });
});
