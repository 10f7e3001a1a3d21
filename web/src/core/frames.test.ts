/** What waits for a frame: its order, and what goes with the same one. */
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { Frames } from "./frames";

describe("the next frame", () => {
  let waiting: (() => void)[];
  let frames: Frames;
  const done: string[] = [];
  const next = () => {
    for (const frame of waiting.splice(0)) frame();
    return done.splice(0);
  };

  beforeEach(() => {
    waiting = [];
    frames = new Frames();
    vi.stubGlobal("requestAnimationFrame", (frame: () => void) => waiting.push(frame));
  });

  afterEach(() => void vi.restoreAllMocks());

  it("moves hands first, and draws what they ask for with the same frame", () => {
    const draw = () => void done.push("drawn");
    frames.draw(() => void done.push("early"));
    frames.move(() => {
      done.push("moved");
      frames.draw(draw);
    });
    expect(waiting).toHaveLength(1);
    expect(next()).toEqual(["moved", "early", "drawn"]);
  });

  it("does once what is asked twice, and not what was dropped", () => {
    const [twice, dropped] = [() => void done.push("twice"), () => void done.push("dropped")];
    for (const step of [twice, dropped, twice]) frames.draw(step);
    frames.drop(dropped);
    expect(next()).toEqual(["twice"]);
  });

  it("leaves to the frame after it what a drawing asks for", () => {
    const again = () => {
      done.push("again");
      frames.draw(again);
    };
    frames.draw(again);
    expect([next(), next()]).toEqual([["again"], ["again"]]);
  });

  it("puts last what a drawing asks for at its end, with the same frame and once", () => {
    const end = () => void done.push("put");
    frames.end(end);
    frames.draw(() => {
      done.push("drawn");
      frames.end(end);
    });
    expect(next()).toEqual(["drawn", "put"]);
    frames.end(end);
    frames.drop(end);
    expect(next()).toEqual([]);
  });

  const turn = (name: string) => frames.turn(() => void done.push(name));

  it("gives what can wait a frame each, after what is drawn and before its end", () => {
    turn("one");
    turn("two");
    frames.draw(() => void done.push("drawn"));
    frames.end(() => void done.push("put"));
    expect([next(), next(), next()]).toEqual([["drawn", "one", "put"], ["two"], []]);
    expect(waiting).toHaveLength(0);
  });

  it("gives the first turn to what a hand waits for", () => {
    turn("one");
    frames.turn(() => void done.push("hand"), true);
    turn("two");
    expect([next(), next(), next()]).toEqual([["hand"], ["one"], ["two"]]);
  });

  it("takes back what waits for its turn", () => {
    const gone = () => void done.push("gone");
    frames.turn(gone);
    turn("stays");
    frames.drop(gone);
    expect(next()).toEqual(["stays"]);
  });

  it("gives no turn in a frame that is spent", () => {
    turn("waits");
    frames.spend();
    expect([next(), next()]).toEqual([[], ["waits"]]);
  });

  it("gives none in a frame that took long, but one after three of those", () => {
    let now = 0;
    vi.spyOn(performance, "now").mockImplementation(() => now);
    const takes = (ms: number) => {
      frames.draw(() => {
        now += ms;
      });
      return next();
    };
    turn("one");
    expect([9, 9, 9].map(takes)).toEqual([[], [], []]);
    expect(takes(9)).toEqual(["one"]);
    turn("two");
    expect([takes(9), takes(8)]).toEqual([[], ["two"]]);
  });

  it("goes on after a fault, which is told", () => {
    const told = vi.fn();
    vi.stubGlobal("reportError", told);
    frames.draw(() => {
      throw new Error("broken");
    });
    frames.draw(() => void done.push("after"));
    expect(next()).toEqual(["after"]);
    expect(told).toHaveBeenCalledWith(new Error("broken"));
  });
});
