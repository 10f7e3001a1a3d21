/** The editor against a pretended server: order of saves, lost connections, conflicts. */
import { beforeEach, describe, expect, it, vi } from "vitest";
import type { Board, Conflict, Layout, LayoutOut } from "../api/types";
import { Editor } from "./editor";
import type { Parcel } from "./outbox";
import type { Fate, Wire } from "./world";

const layout = (name: string) =>
  ({ name, mics: [], stereo_pairs: [], decisions: [] }) as unknown as Layout;
const answer = (version: number, name: string, head_key: string | null = null) =>
  ({ id: 7, version, doc: layout(name), can_undo: true, head_key }) as LayoutOut;

class Refusal extends Error {}
class Stranger extends Error {}
class Gone extends Error {}

/** A server of one layout, that keeps each save and step once by its key, as the real one does. */
class Stub implements Wire {
  version = 1;
  stored = "first";
  head: string | null = null;
  saves: string[] = [];
  /** What it does with the next request: answer, or one of the ways not to. */
  mode: "up" | "down" | "deaf" | "elsewhere" | "refuse" | "stranger" | "gone" | "gateway" = "up";
  asked: string[] = [];
  hold: Promise<void> | null = null;
  /** How it words its answers. */
  answers = (out: LayoutOut) => out;
  private readonly known = new Set<string>();

  async compute(doc: Layout): Promise<Board> {
    this.asked.push(doc.name);
    await Promise.resolve();
    return { counts: {} } as Board;
  }
  follow(): Promise<never> {
    return Promise.reject(new Refusal("not asked here"));
  }
  async save(_: number, { version, doc, what, key }: Parcel): Promise<LayoutOut> {
    if (this.hold) await this.hold;
    this.meet();
    if (this.mode === "refuse") throw new Refusal("a mic is called twice");
    if (!this.known.has(key)) {
      if (this.mode === "elsewhere" || version !== this.version) this.conflict();
      this.known.add(key);
      this.version++;
      this.stored = doc.name;
      this.head = key;
      this.saves.push(what);
    }
    return this.told();
  }
  async step(_: number, version: number, way: string, key: string): Promise<LayoutOut> {
    this.meet();
    if (!this.known.has(key)) {
      if (version !== this.version) this.conflict();
      this.known.add(key);
      this.version++;
      this.stored = `${way} ${this.stored}`;
      this.head = null;
    }
    return this.told();
  }
  /** Somebody else saves. */
  other(name: string): void {
    this.version++;
    this.stored = name;
    this.head = "theirs";
  }
  fateOf(error: unknown): Fate {
    if (error instanceof Refusal) return "refused";
    if (error instanceof Stranger) return "stranger";
    if (error instanceof Gone) return "gone";
    return "current" in (error as object) ? "conflict" : "away";
  }
  conflictOf(error: unknown): Conflict {
    return error as Conflict;
  }
  private meet(): void {
    if (this.mode === "down" || this.mode === "gateway") throw new TypeError("no connection");
    if (this.mode === "stranger") throw new Stranger("sign in");
    if (this.mode === "gone") throw new Gone("no such thing");
  }
  /** The answer; deaf, it is done and the answer lost. */
  private told(): LayoutOut {
    if (this.mode === "deaf") throw new TypeError("no connection");
    return this.answers(answer(this.version, this.stored, this.head));
  }
  private conflict(): never {
    throw Object.assign(new Error("conflict"), { current: answer(9, "theirs") });
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

  it("sends what an older program left here and shows it as the server has it", async () => {
    stub.mode = "down";
    editor.commit({ ...layout("of old"), version: 1 } as unknown as Layout, "o");
    await settle();
    editor.close();
    stub.mode = "up";
    const renewed = (out: LayoutOut) => ({ ...out, doc: { ...out.doc, version: 3 as const } });
    stub.answers = renewed;
    const next = new Editor(renewed(answer(1, "first")), stub, store);
    expect(next.snapshot().doc.name).toBe("first"); // not in a form this program cannot draw
    await vi.advanceTimersByTimeAsync(3000);
    expect(stub.saves).toEqual(["o"]);
    expect(next.snapshot().doc).toMatchObject({ name: "of old", version: 3 });
    expect(next.snapshot().saved).toBe("saved");
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
    expect(editor.snapshot().refusal?.words).toContain("called twice");
    expect(editor.snapshot().doc.name).toBe("bad");
  });

  it("sends what is still settling before it undoes", async () => {
    editor.commitSoon(layout("soon"), "Moved");
    await editor.step("undo");
    await settle();
    expect(stub.saves).toEqual(["Moved"]);
    expect(editor.snapshot().doc.name).toBe("undo soon");
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
    await vi.waitFor(() => expect(editor.snapshot().doc.name).toBe("undo undo second"));
    expect(stub.version).toBe(4); // one save and two steps back
  });

  it("undoes a key press that has not been sent yet, after sending it", async () => {
    const editor = new Editor(answer(1, "first"), stub, store);
    editor.commitSoon(layout("nudged"), "moved");
    await editor.step("undo");
    await vi.waitFor(() => expect(editor.snapshot().doc.name).toBe("undo nudged"));
    expect(stub.saves).toEqual(["moved"]);
  });

  it("takes one step after the other when undo is pressed faster than the server answers", async () => {
    const under: number[] = [];
    let most = 0;
    const real = stub.step.bind(stub);
    stub.step = async (...asked) => {
      under.push(1);
      most = Math.max(most, under.length);
      await new Promise((r) => setTimeout(r, 5));
      under.pop();
      return real(...asked);
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

  const modes = ["down", "gateway", "deaf", "stranger"] as const;
  const word = { down: "unsent", gateway: "unsent", deaf: "unsent", stranger: "stranger" } as const;

  it.each(modes)("keeps a save that met with %s, says so, and does it once", async (mode) => {
    stub.mode = mode;
    editor.commit(layout("mine"), "m");
    await settle();
    expect(editor.snapshot().saved).toBe(word[mode]);
    expect(editor.snapshot().doc.name).toBe("mine");
    expect(store.held.size).toBe(1);
    stub.mode = "up";
    editor.tryNow();
    await settle();
    expect(editor.snapshot().saved).toBe("saved");
    expect(stub.saves).toEqual(["m"]);
    expect(stub.version).toBe(2);
    expect(store.held.size).toBe(0);
  });

  it.each(modes)(
    "takes an undo that met with %s once, and is saved again after it",
    async (mode) => {
      stub.mode = mode;
      void editor.step("undo");
      await settle();
      expect(editor.snapshot().saved).toBe(word[mode]);
      expect(editor.unsafe).toBe(true);
      stub.mode = "up";
      await vi.advanceTimersByTimeAsync(3000);
      expect(editor.snapshot().saved).toBe("saved");
      expect(editor.snapshot().doc.name).toBe("undo first");
      expect(stub.version).toBe(2);
    },
  );

  it("sends what was lost before what came after it, and makes no conflict of its own", async () => {
    stub.mode = "deaf";
    editor.commit(layout("one"), "1");
    await settle();
    editor.commit(layout("two"), "2");
    stub.mode = "up";
    editor.tryNow();
    await settle();
    expect(stub.saves).toEqual(["1", "2"]);
    expect(editor.snapshot().saved).toBe("saved");
    expect(stub.stored).toBe("two");
  });

  it("shows what somebody made of a save whose answer was lost", async () => {
    stub.mode = "deaf";
    editor.commit(layout("mine"), "m");
    await settle();
    stub.other("theirs on mine");
    stub.mode = "up";
    editor.tryNow();
    await settle();
    expect(editor.snapshot().doc.name).toBe("theirs on mine");
    expect(editor.snapshot().saved).toBe("saved");
  });

  it("asks when somebody went on from a lost save and there is more of mine", async () => {
    stub.mode = "deaf";
    editor.commit(layout("mine"), "m");
    await settle();
    stub.other("theirs on mine");
    editor.commit(layout("mine more"), "m2");
    stub.mode = "up";
    editor.tryNow();
    await settle();
    expect(editor.snapshot().saved).toBe("conflict");
    expect(editor.snapshot().doc.name).toBe("mine more");
  });

  it("finds after a closed tab that a lost save was done, and sends what came after it", async () => {
    stub.mode = "deaf";
    editor.commit(layout("one"), "1");
    await settle();
    editor.commit(layout("two"), "2");
    editor.close();
    stub.mode = "up";
    const next = new Editor(answer(2, "one", stub.head), stub, store);
    expect(next.snapshot().doc.name).toBe("two");
    await settle();
    expect(stub.saves).toEqual(["1", "2"]);
    expect(next.snapshot().saved).toBe("saved");
    expect(store.held.size).toBe(0);
  });

  it("keeps what was refused over a closed tab, to be tried again or let go of", async () => {
    stub.mode = "refuse";
    editor.commit(layout("bad"), "b");
    await settle();
    editor.close();
    const next = new Editor(answer(1, "first"), stub, store);
    expect(next.snapshot().saved).toBe("refused");
    expect(next.snapshot().refusal?.doc.name).toBe("bad");
    stub.mode = "up";
    next.again();
    await settle();
    expect(stub.stored).toBe("bad");
    expect(next.snapshot().refusal).toBeNull();
    expect(store.held.size).toBe(0);
  });

  it("keeps mine when the layout is gone", async () => {
    stub.mode = "gone";
    editor.commit(layout("mine"), "m");
    await settle();
    expect(editor.snapshot().refusal?.words).toContain("not there any more");
    expect(editor.snapshot().refusal?.doc.name).toBe("mine");
    expect(store.held.size).toBe(1);
  });

  it("mends what was refused by the next edit, and undoes it by letting it go", async () => {
    stub.mode = "refuse";
    editor.commit(layout("bad"), "b");
    await settle();
    await editor.step("undo");
    expect(editor.snapshot().doc.name).toBe("first");
    expect(editor.snapshot().refusal).toBeNull();
    editor.commit(layout("bad"), "b");
    await settle();
    stub.mode = "up";
    editor.commit(layout("mended"), "b2");
    await settle();
    expect(editor.snapshot().refusal).toBeNull();
    expect(stub.stored).toBe("mended");
  });

  it("takes up the one state that an older page kept without a key", async () => {
    store.setItem(
      "ringside-unsent-7",
      JSON.stringify({ doc: layout("old"), what: "o", version: 1 }),
    );
    const next = new Editor(answer(1, "first"), stub, store);
    await settle();
    expect(next.snapshot().doc.name).toBe("old");
    expect(stub.stored).toBe("old");
  });

  it("puts what it cannot read of its store aside rather than away", async () => {
    store.setItem("ringside-unsent-7", "{half");
    new Editor(answer(1, "first"), stub, store);
    expect(store.getItem("ringside-garbled-unsent-7")).toBe("{half");
  });

  it("leaves to the page that follows it what that one has kept", async () => {
    stub.mode = "down";
    editor.commit(layout("mine"), "m");
    await settle();
    editor.close();
    const next = new Editor(answer(1, "first"), stub, store);
    next.commit(layout("newer"), "n");
    const kept = store.getItem("ringside-unsent-7");
    editor.close();
    expect(store.getItem("ringside-unsent-7")).toBe(kept);
  });

  it("tries less and less often while the server stays away", async () => {
    stub.mode = "down";
    let tries = 0;
    const save = stub.save.bind(stub);
    stub.save = (id, parcel) => {
      tries++;
      return save(id, parcel);
    };
    editor.commit(layout("mine"), "m");
    await vi.advanceTimersByTimeAsync(60_000);
    expect(tries).toBe(5); // at 0, 2.5, 7.5, 17.5 and 37.5 seconds
  });

  it.each(["deaf", "down"] as const)(
    "keeps an edit made while an undo met with %s",
    async (mode) => {
      stub.mode = mode;
      void editor.step("undo");
      await settle();
      editor.commit(layout("after"), "a");
      await settle();
      expect(stub.saves).toEqual([]);
      stub.mode = "up";
      await vi.advanceTimersByTimeAsync(3000);
      expect(stub.stored).toBe("after");
      expect(editor.snapshot().doc.name).toBe("after");
      expect(editor.snapshot().saved).toBe("saved");
      expect(stub.version).toBe(3); // one step and one save, no conflict of its own
    },
  );

  it("sends what was done meanwhile when there is nothing to undo", async () => {
    stub.step = () => Promise.reject(new Refusal("nothing further"));
    void editor.step("undo");
    editor.commit(layout("after"), "a");
    await settle();
    expect(stub.stored).toBe("after");
    expect(editor.snapshot().saved).toBe("saved");
  });
});
