/** What is written down: in order, once, and not lost with the page. */
import { describe, expect, it } from "vitest";
import { type Entry, LogBox } from "./logbox";
import type { Fate } from "./world";

function world() {
  const held = new Map<string, string>();
  const store = {
    getItem: (k: string) => held.get(k) ?? null,
    setItem: (k: string, v: string) => void held.set(k, v),
    removeItem: (k: string) => void held.delete(k),
  };
  const tries: (() => void)[] = [];
  const told: string[] = [];
  const state = { fate: null as Fate | null, saving: 0, sent: [] as unknown[] };
  const post = {
    send: async (entry: Entry) => {
      if (state.fate) throw new Error(state.fate);
      state.sent.push(entry.body.n);
    },
    fateOf: (error: unknown) => (error as Error).message as Fate,
    away: () => new Promise<void>((go) => void tries.push(go)),
    reached: () => undefined,
    hold: () => void state.saving++,
    release: () => void state.saving--,
    trouble: (error: Error, entry: Entry) => void told.push(`${error.message} ${entry.body.n}`),
  };
  const entry = (n: number): Entry => ({ kind: "tape", body: { n } });
  const settle = () => new Promise((r) => setTimeout(r));
  return { store, held, state, tries, told, entry, settle, open: () => new LogBox(store, 3, post) };
}

describe("the log", () => {
  it("writes down one after the other and keeps nothing that is there", async () => {
    const { open, state, held, entry } = world();
    const box = open();
    await Promise.all([1, 2, 3].map((n) => box.write(entry(n))));
    expect(state.sent).toEqual([1, 2, 3]);
    expect(held.size).toBe(0);
    expect(state.saving).toBe(0);
  });

  it.each(["away", "stranger"] as const)("keeps what met with %s, in order", async (fate) => {
    const { open, state, held, tries, entry, settle } = world();
    const box = open();
    state.fate = fate;
    void box.write(entry(1));
    void box.write(entry(2));
    await settle();
    expect(state.saving).toBe(2);
    expect(held.get("ringside-log-3")).toContain('"n":2');
    state.fate = null;
    tries.shift()?.();
    await settle();
    expect(state.sent).toEqual([1, 2]);
    expect(state.saving).toBe(0);
  });

  it("sends what a full store would not keep, and says it is unsaved until then", async () => {
    const { store, open, state, entry } = world();
    store.setItem = () => {
      throw new Error("full");
    };
    const written = open().write(entry(1));
    expect(state.saving).toBe(1);
    await written;
    expect(state.sent).toEqual([1]);
    expect(state.saving).toBe(0);
  });

  it("sends what a closed page had left", async () => {
    const { open, state, held, entry, settle } = world();
    state.fate = "away";
    void open().write(entry(1));
    await settle();
    state.fate = null;
    open();
    await settle();
    expect(state.sent).toEqual([1]);
    expect(held.size).toBe(0);
  });

  it("shows what is on its way to whoever watches, and no more once it is there", async () => {
    const { open, state, tries, entry, settle } = world();
    const box = open();
    const seen: number[] = [];
    box.subscribe(() => seen.push(box.unsent().length));
    state.fate = "away";
    void box.write(entry(1));
    const first = box.unsent();
    void box.write(entry(2));
    await settle();
    expect(box.unsent().map((e) => e.body.n)).toEqual([1, 2]);
    expect(first).toHaveLength(1);
    state.fate = null;
    tries.shift()?.();
    await settle();
    expect(seen).toEqual([1, 2, 1, 0]);
  });

  it.each(["refused", "gone"] as const)("says what was %s and goes on", async (fate) => {
    const { open, state, told, held, entry } = world();
    const box = open();
    state.fate = fate;
    await expect(box.write(entry(1))).rejects.toThrow(fate);
    state.fate = null;
    await box.write(entry(2));
    expect(told).toEqual([`${fate} 1`]);
    expect(state.sent).toEqual([2]);
    expect(held.size).toBe(0);
  });
});
