/** Shared memory between a worker and its page: what is laid in, taken out, and called for. */
import { describe, expect, it, vi } from "vitest";
import { Mailbox } from "./mailbox";

const bytes = (answer: unknown) => new TextEncoder().encode(JSON.stringify(answer));

function both(): { worker: Mailbox; page: Mailbox } {
  vi.stubGlobal("crossOriginIsolated", true);
  const page = Mailbox.made();
  if (!page) throw new Error("no memory");
  return { page, worker: new Mailbox(page.memory) };
}

describe("a mailbox", () => {
  it("is there only where a page shares its memory", () => {
    vi.stubGlobal("crossOriginIsolated", false);
    expect(Mailbox.made()).toBeNull();
  });

  it("gives the newest question's answer, whatever came last, and names them all", () => {
    const { worker, page } = both();
    for (const n of [4, 6, 5]) expect(worker.put(n, bytes({ of: n, words: "größer" }))).toBe(true);
    expect(page.take()).toEqual({ numbers: [6, 5, 4], newest: { of: 6, words: "größer" } });
    expect(page.take()).toBeNull();
  });

  it("leaves nothing of a longer answer behind a shorter one", () => {
    const { worker, page } = both();
    worker.put(1, bytes({ long: "x".repeat(500) }));
    page.take();
    worker.put(2, bytes([]));
    expect(page.take()?.newest).toEqual([]);
  });

  it("says where it has no room: too many answers, or too long a one", () => {
    const { worker, page } = both();
    const room = [...Array(9).keys()].map((n) => worker.put(n, bytes(n)));
    expect(room).toEqual([true, true, true, true, true, true, true, true, false]);
    page.take();
    expect(worker.put(9, bytes(9))).toBe(true);
    expect(worker.put(10, new Uint8Array(32768))).toBe(true);
    expect(worker.put(11, new Uint8Array(32769))).toBe(false);
  });

  it("calls once until the call is heard", () => {
    const { worker, page } = both();
    expect([worker.call(), worker.call()]).toEqual([true, false]);
    page.heard();
    expect(worker.call()).toBe(true);
  });
});
