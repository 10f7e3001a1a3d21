/** The editor against a pretended server: order of saves, lost connections, conflicts. */
import { beforeEach, describe, expect, it, vi } from "vitest";
import type { Board, Conflict, Layout, LayoutOut } from "../api/types";
import { Editor, type Wire } from "./editor";

const layout = (name: string) =>
  ({ name, mics: [], stereo_pairs: [], decisions: [] }) as unknown as Layout;
const answer = (version: number, name: string) =>
  ({ id: 7, version, doc: layout(name), can_undo: true }) as LayoutOut;

class Refusal extends Error {}

class Stub implements Wire {
  version = 1;
  stored = "first";
  saves: string[] = [];
  mode: "up" | "down" | "elsewhere" | "refuse" = "up";
  asked: string[] = [];
  hold: Promise<void> | null = null;

  async compute(doc: Layout): Promise<Board> {
    this.asked.push(doc.name);
    await Promise.resolve();
    return { counts: {} } as Board;
  }
  async save(_: number, version: number, doc: Layout, what: string): Promise<LayoutOut> {
    if (this.hold) await this.hold;
    if (this.mode === "down") throw new TypeError("no connection");
    if (this.mode === "refuse") throw new Refusal("a mic is called twice");
    if (this.mode === "elsewhere" || version !== this.version)
      throw Object.assign(new Error("conflict"), { current: answer(9, "theirs") });
    this.version++;
    this.stored = doc.name;
    this.saves.push(what);
    return answer(this.version, doc.name);
  }
  async step(): Promise<LayoutOut> {
    return answer(++this.version, "before");
  }
  conflictOf(error: unknown): Conflict | null {
    return "current" in (error as object) ? (error as Conflict) : null;
  }
  isRefusal(error: unknown): boolean {
    return error instanceof Refusal;
  }
}

function memory() {
  const held = new Map<string, string>();
  return {
    held,
    getItem: (k: string) => held.get(k) ?? null,
    setItem: (k: string, v: string) => void held.set(k, v),
    removeItem: (k: string) => void held.delete(k),
  };
}

describe("the editor", () => {
  let stub: Stub;
  let store: ReturnType<typeof memory>;
  let editor: Editor;
  const settle = () => vi.advanceTimersByTimeAsync(20);

  beforeEach(() => {
    vi.useFakeTimers();
    stub = new Stub();
    store = memory();
    editor = new Editor(answer(1, "first"), stub, store);
  });

  it("saves each state against the version before it", async () => {
    editor.commit(layout("a"), "a");
    editor.commit(layout("b"), "b");
    editor.commit(layout("c"), "c");
    await settle();
    expect(stub.stored).toBe("c");
    expect(editor.snapshot().saved).toBe("saved");
    expect(editor.snapshot().out.version).toBe(stub.version);
    expect(store.held.size).toBe(0);
  });

  it("saves nothing while the hand still moves", async () => {
    for (const name of ["x", "y", "z"]) editor.preview(layout(name));
    await settle();
    expect(stub.saves).toEqual([]);
    expect(editor.snapshot().doc.name).toBe("z");
  });

  it("asks two questions at a time at most, and the newest last", async () => {
    await settle();
    stub.asked = [];
    for (let i = 0; i < 50; i++) editor.preview(layout(`p${i}`));
    await settle();
    expect(stub.asked.length).toBeLessThan(6);
    expect(stub.asked.at(-1)).toBe("p49");
  });

  it("never lets an old answer replace a newer one", async () => {
    await settle();
    const answers: (() => void)[] = [];
    stub.compute = (doc: Layout) =>
      new Promise((done) => {
        answers.push(() => done({ speed_of_sound_m_s: Number(doc.name) } as Board));
      });
    editor.preview(layout("1"));
    editor.preview(layout("2"));
    answers[1]?.();
    await settle();
    answers[0]?.();
    await settle();
    expect(editor.snapshot().board?.speed_of_sound_m_s).toBe(2);
  });

  it("makes one save of keys held down", async () => {
    for (let i = 0; i < 10; i++) editor.commitSoon(layout(`k${i}`), "Moved");
    await vi.advanceTimersByTimeAsync(600);
    expect(stub.saves).toEqual(["Moved"]);
    expect(stub.stored).toBe("k9");
  });

  it("keeps work while the server is away and sends it when it is back", async () => {
    stub.mode = "down";
    editor.commit(layout("kept"), "k");
    await settle();
    expect(editor.snapshot().saved).toBe("unsent");
    expect(store.held.size).toBe(1);
    stub.mode = "up";
    await vi.advanceTimersByTimeAsync(3000);
    expect(stub.stored).toBe("kept");
    expect(editor.snapshot().saved).toBe("saved");
    expect(store.held.size).toBe(0);
  });

  it("asks again for numbers that could not be computed", async () => {
    await settle();
    const answer = stub.compute.bind(stub);
    stub.compute = () => Promise.reject(new TypeError("no connection"));
    editor.preview(layout("away"));
    await settle();
    stub.asked = [];
    stub.compute = answer;
    await vi.advanceTimersByTimeAsync(3000);
    expect(stub.asked).toEqual(["away"]);
  });

  it("takes up what an earlier page could not send", async () => {
    stub.mode = "down";
    editor.commit(layout("kept"), "k");
    await settle();
    editor.close();
    stub.mode = "up";
    const next = new Editor(answer(1, "first"), stub, store);
    expect(next.snapshot().doc.name).toBe("kept");
    await settle();
    expect(stub.stored).toBe("kept");
  });

  it("shows a conflict, writes nothing, and puts mine on top when told", async () => {
    stub.mode = "elsewhere";
    editor.commit(layout("mine"), "m");
    await settle();
    expect(editor.snapshot().saved).toBe("conflict");
    expect(editor.snapshot().doc.name).toBe("mine");
    expect(stub.saves).toEqual([]);
    stub.mode = "up";
    stub.version = 9;
    editor.resolve("mine");
    await settle();
    expect(stub.stored).toBe("mine");
    expect(editor.snapshot().conflict).toBeNull();
  });

  it("puts on top what was kept, not what is only shown", async () => {
    stub.mode = "elsewhere";
    editor.commit(layout("mine"), "m");
    await settle();
    editor.preview(layout("only shown"));
    stub.mode = "up";
    stub.version = 9;
    editor.resolve("mine");
    await settle();
    expect(stub.stored).toBe("mine");
  });

  it("does not say saved while an edit is on its way to the core", async () => {
    editor.hold();
    expect(editor.snapshot().saved).toBe("saving");
    expect(editor.unsafe).toBe(true);
    editor.commit(layout("first of two"), "1");
    await settle();
    expect(editor.snapshot().saved).toBe("saving");
    editor.release();
    expect(editor.snapshot().saved).toBe("saved");
    expect(editor.unsafe).toBe(false);
  });

  it("takes theirs when told, and forgets mine only then", async () => {
    stub.mode = "elsewhere";
    editor.commit(layout("mine"), "m");
    await settle();
    expect(store.held.size).toBe(1);
    editor.resolve("theirs");
    expect(editor.snapshot().doc.name).toBe("theirs");
    expect(store.held.size).toBe(0);
  });

  it("says when a state is refused", async () => {
    stub.mode = "refuse";
    editor.commit(layout("bad"), "b");
    await settle();
    expect(editor.snapshot().saved).toBe("refused");
    expect(editor.snapshot().trouble).toContain("called twice");
  });

  it("sends what is still settling before it undoes", async () => {
    editor.commitSoon(layout("soon"), "Moved");
    await editor.step("undo");
    await settle();
    expect(stub.saves).toEqual(["Moved"]);
    expect(editor.snapshot().doc.name).toBe("before");
  });

  it("undoes what was pressed while a save was under way, once it has landed", async () => {
    const editor = new Editor(answer(1, "first"), stub, store);
    let go: () => void = () => undefined;
    stub.hold = new Promise((resolve) => {
      go = resolve;
    });
    editor.commit(layout("second"), "moved");
    await editor.step("undo");
    await editor.step("undo");
    expect(editor.snapshot().doc.name).toBe("second");
    go();
    await vi.waitFor(() => expect(editor.snapshot().doc.name).toBe("before"));
    await vi.waitFor(() => expect(stub.version).toBe(4)); // one save and two steps back
    expect(stub.stored).toBe("second");
  });

  it("undoes a key press that has not been sent yet, after sending it", async () => {
    const editor = new Editor(answer(1, "first"), stub, store);
    editor.commitSoon(layout("nudged"), "moved");
    await editor.step("undo");
    await vi.waitFor(() => expect(editor.snapshot().doc.name).toBe("before"));
    expect(stub.saves).toEqual(["moved"]);
  });

  it("takes one step after the other when undo is pressed faster than the server answers", async () => {
    const under: number[] = [];
    let most = 0;
    const real = stub.step.bind(stub);
    stub.step = async () => {
      under.push(1);
      most = Math.max(most, under.length);
      await new Promise((r) => setTimeout(r, 5));
      under.pop();
      return real();
    };
    const editor = new Editor(answer(1, "first"), stub, store);
    void editor.step("undo");
    void editor.step("undo");
    void editor.step("undo");
    await vi.waitFor(() => expect(editor.snapshot().out.version).toBe(4));
    expect(most).toBe(1);
    expect(editor.snapshot().saved).toBe("saved");
  });

  it("forgets an undo when the save before it did not land", async () => {
    const editor = new Editor(answer(1, "first"), stub, store);
    stub.mode = "refuse";
    editor.commit(layout("bad"), "broke");
    await editor.step("undo");
    await vi.waitFor(() => expect(editor.snapshot().saved).toBe("refused"));
    expect(stub.version).toBe(1);
  });

  it("edits made while a save is under way go after it, in order", async () => {
    let open: () => void = () => undefined;
    stub.hold = new Promise((done) => {
      open = done;
    });
    editor.commit(layout("one"), "1");
    editor.commit(layout("two"), "2");
    stub.hold = null;
    open();
    await settle();
    expect(stub.saves).toEqual(["1", "2"]);
    expect(stub.stored).toBe("two");
  });
});
