/** How often what is read is told of under a hand. */
import { beforeEach, describe, expect, it, vi } from "vitest";
import { Calm, calmAfter } from "./calm";

describe("what is read under a hand", () => {
  let told: number[];
  let takes: number;
  let calm: Calm;
  const due = new Set<() => void>();
  const turns = {
    turn: (step: () => void) => due.add(step),
    drop: (step: () => void) => due.delete(step),
  };

  /** A frame comes: whoever waits has its turn. */
  function frame(): void {
    const steps = [...due];
    due.clear();
    for (const step of steps) step();
  }

  const tell = () => {
    told.push(Date.now() - 10_000);
    vi.setSystemTime(Date.now() + takes);
  };

  beforeEach(() => {
    vi.useFakeTimers({ now: 10_000 });
    [told, takes] = [[], 0];
    due.clear();
    calm = new Calm(tell, turns);
    vi.spyOn(performance, "now").mockImplementation(() => Date.now());
  });

  /** A hand that changes it sixty times a second for a while, milliseconds. */
  async function moved(ms: number): Promise<void> {
    for (const end = Date.now() + ms; Date.now() < end; ) {
      calm.hear(false);
      frame();
      await vi.advanceTimersByTimeAsync(16);
    }
  }

  /** Nothing more is heard, while frames come. */
  async function waited(ms: number): Promise<void> {
    for (const end = Date.now() + ms; Date.now() < end; ) {
      await vi.advanceTimersByTimeAsync(16);
      frame();
    }
  }

  it("is told ten times a second, and as it was at last", async () => {
    await moved(1000);
    expect(told.length).toBeGreaterThanOrEqual(9);
    expect(told.length).toBeLessThanOrEqual(11);
    expect(told[0]).toBe(0);
    const heard = told.length;
    calm.hear(false);
    await waited(112);
    expect(told.length).toBe(heard + 1);
    await waited(1000);
    expect(told.length).toBe(heard + 1);
  });

  it("takes no more than a twentieth of the time where it is slow to draw", async () => {
    takes = 20;
    await moved(2000);
    const waits = told.slice(1).map((at, i) => at - (told[i] ?? 0));
    expect(Math.min(...waits)).toBeGreaterThanOrEqual(400);
    expect(Math.max(...waits)).toBeLessThan(450);
  });

  it("is told less often where it is not read so soon", async () => {
    calm = new Calm(tell, turns, 300);
    await moved(1000);
    const waits = told.slice(1).map((at, i) => at - (told[i] ?? 0));
    expect(Math.min(...waits)).toBeGreaterThanOrEqual(300);
    expect(Math.max(...waits)).toBeLessThan(350);
  });

  it("is told once a second however slow it is", () => {
    expect(calmAfter(5)).toBe(100);
    expect(calmAfter(6)).toBe(120);
    expect(calmAfter(500)).toBe(1000);
    expect(calmAfter(10, 40, 250)).toBe(400);
    expect(calmAfter(1, 40, 250)).toBe(250);
  });

  it("waits for nothing once the hand has let go, and is not told twice", async () => {
    takes = 50;
    await moved(50);
    expect(told.length).toBe(1);
    calm.hear(true);
    expect(told.length).toBe(2);
    await waited(2000);
    expect(told.length).toBe(2);
  });

  it("takes what was told at once for no measure of what comes under a hand", async () => {
    takes = 500;
    calm.hear(true);
    takes = 0;
    calm.hear(false);
    await waited(112);
    expect(told.length).toBe(2);
  });

  it("is told nothing after its end, whether it waits for a time or for a frame", async () => {
    calm.hear(false);
    calm.stop();
    await waited(2000);
    expect(told.length).toBe(0);
    calm.hear(false);
    frame();
    calm.hear(false);
    calm.stop();
    await waited(2000);
    expect(told.length).toBe(1);
  });

  it("is told with a frame and never between two, unless no hand changes it", async () => {
    calm.hear(false);
    expect(told.length).toBe(0);
    frame();
    expect(told.length).toBe(1);
    calm.hear(false);
    await vi.advanceTimersByTimeAsync(500);
    expect(told.length).toBe(1);
    calm.hear(true);
    expect(told.length).toBe(2);
    frame();
    expect(told.length).toBe(2);
  });
});
