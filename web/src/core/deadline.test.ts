import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { Deadline } from "./deadline";

describe("something put off", () => {
  let done: string[];
  const say = (word: string) => () => void done.push(word);
  beforeEach(() => {
    vi.useFakeTimers();
    done = [];
  });
  afterEach(() => vi.useRealTimers());

  it("is done once, that long after it was put off last, as it was said last", () => {
    const deadline = new Deadline();
    deadline.put(100, say("first"));
    vi.advanceTimersByTime(60);
    deadline.put(100, say("last"));
    vi.advanceTimersByTime(99);
    expect(done).toEqual([]);
    vi.advanceTimersByTime(1);
    expect(done).toEqual(["last"]);
    vi.advanceTimersByTime(1000);
    expect([done, deadline.running]).toEqual([["last"], false]);
  });

  it("is not done when it is called off, and can be put again", () => {
    const deadline = new Deadline();
    deadline.put(100, say("off"));
    deadline.clear();
    expect(deadline.running).toBe(false);
    vi.advanceTimersByTime(50);
    deadline.put(200, say("again"));
    vi.advanceTimersByTime(199);
    expect(done).toEqual([]);
    vi.advanceTimersByTime(1);
    expect(done).toEqual(["again"]);
  });

  it("comes sooner when it is put sooner", () => {
    const deadline = new Deadline();
    deadline.put(1000, say("late"));
    deadline.put(10, say("soon"));
    vi.advanceTimersByTime(10);
    expect(done).toEqual(["soon"]);
  });
});
