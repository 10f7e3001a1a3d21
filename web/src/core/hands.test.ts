/** Edits under the hand: in order, newest place only, and nothing let go of is lost. */
import { describe, expect, it } from "vitest";
import type { Edit, Edited, Layout } from "../api/types";
import { Hands, type Make } from "./hands";

const layoutNamed = (name: string) => ({ name }) as Layout;

/** A core that appends each edit's name to the layout's, and waits to be let go on. */
function world() {
  const log: string[] = [];
  const held: number[] = [];
  let still = layoutNamed("");
  let shown = still;
  const gates: (() => void)[] = [];
  const tries: (() => void)[] = [];
  let kept: string[] = [];
  const frames: (() => void)[] = [];
  const ask = (layout: Layout, edit: Edit) =>
    new Promise<Edited>((resolve, reject) => {
      const name = (edit as unknown as { id: string }).id;
      gates.push(() =>
        name === "bad" || name === "away"
          ? reject(new Error(name === "bad" ? "refused" : "no network"))
          : resolve({
              layout: layoutNamed(layout.name + name),
              words: name,
              moved: [],
              made: null,
            }),
      );
    });
  const hands = new Hands({
    still: () => still,
    ask,
    tried: async (layout, edit) => (await ask(layout, edit)).layout,
    preview: (layout) => {
      shown = layout;
      log.push(`preview ${layout.name}`);
    },
    shown: () => shown,
    show: (layout) => {
      shown = layout;
      log.push(`show ${layout.name}`);
    },
    showWhole: (layout) => {
      shown = layout;
      log.push(`whole ${layout.name}`);
    },
    withFrame: (next) => frames.push(next),
    commit: (layout, what, soon) => {
      still = layout;
      log.push(`commit ${layout.name} ${what}${soon ? " soon" : ""}`);
    },
    hold: () => held.push(1),
    release: () => held.pop(),
    trouble: (error) => log.push(error.message),
    keep: (list) => {
      kept = list.map((h) => (h.edit as unknown as { id: string }).id);
    },
    fateOf: (error) => ((error as Error).message === "no network" ? "away" : "refused"),
    away: () =>
      new Promise((again) => {
        tries.push(again);
      }),
    reached: () => undefined,
  });
  const step = async (drawn = true) => {
    gates.shift()?.();
    await new Promise((r) => setTimeout(r));
    if (drawn) frame();
  };
  const frame = () => {
    for (const next of frames.splice(0)) next();
  };
  const keep = (name: string) => {
    still = layoutNamed(name);
  };
  return { hands, log, step, frame, gates, held, keep, tries, kept: () => kept };
}

const edit =
  (id: string): Make =>
  () =>
    ({ do: "remove", id }) as Edit;

describe("hands", () => {
  it("shows at once what is held, and over every answer where the hand is by then", async () => {
    const { hands, log, step, keep } = world();
    keep("kept");
    const at = (place: string) => (shown: Layout, kept: Layout) =>
      layoutNamed(`${shown.name.split("+")[0]}+${kept.name}@${place}`);
    hands.preview(edit("a"), at("1"));
    hands.preview(edit("b"), at("2"));
    expect(log).toEqual(["show +kept@1", "show +kept@2"]);
    await step();
    expect(log[2]).toBe("whole kepta+kept@2");
    void hands.commit(edit("c"));
    await step();
    expect(log.slice(3)).toEqual([]);
    await step();
    expect(log.slice(3)).toEqual(["commit keptc c"]);
  });

  it("draws an answer with the next frame where the hand is by then, and none after it let go", async () => {
    const { hands, log, step, frame } = world();
    const at = (place: string) => (shown: Layout) =>
      layoutNamed(`${shown.name.split("@")[0]}@${place}`);
    hands.preview(edit("a"), at("1"));
    await step(false);
    hands.preview(edit("b"), at("2"));
    expect(log).toEqual(["show @1", "show @2"]);
    frame();
    expect(log.slice(2)).toEqual(["whole a@2"]);
    await step(false);
    void hands.commit(edit("c"));
    frame();
    expect(log.slice(3)).toEqual([]);
  });

  it("asks nothing while something is held that nothing goes along with", async () => {
    const { hands, log, step, gates } = world();
    hands.hold(() => layoutNamed("held 1"));
    hands.hold(() => layoutNamed("held 2"));
    expect([log, gates.length]).toEqual([["show held 1", "show held 2"], 0]);
    void hands.commit(edit("a"));
    await step();
    expect(log[2]).toBe("commit a a");
  });

  it("leaves what is refused with the hand until it lets go", async () => {
    const { hands, log, step } = world();
    hands.preview(edit("bad"), (shown) => shown);
    await step();
    expect(log).toEqual(["show ", "refused"]);
    void hands.commit(edit("bad"));
    await step();
    expect(log.slice(2)).toEqual(["preview ", "refused"]);
  });

  it("asks of two places at once and drops all between them and the newest", async () => {
    const { hands, log, step, gates } = world();
    for (const id of ["a", "b", "c", "d"]) hands.preview(edit(id));
    expect(gates.length).toBe(2);
    for (let i = 0; i < 3; i++) await step();
    expect(log).toEqual(["preview a", "preview b", "preview d"]);
    expect(gates.length).toBe(0);
  });

  it("never shows an answer that a newer one has overtaken", async () => {
    const { hands, log, step, gates } = world();
    for (const id of ["a", "b"]) hands.preview(edit(id));
    gates.reverse();
    await step();
    await step();
    expect(log).toEqual(["preview b"]);
  });

  it("shows nothing that was made of what is no longer kept, and asks for the newest again", async () => {
    const { hands, log, step, keep, gates } = world();
    for (const id of ["a", "b"]) hands.preview(edit(id));
    keep("undone");
    gates.pop(); // that of b is on its way for long
    await step();
    expect(log).toEqual([]);
    await step();
    expect(log).toEqual(["preview undoneb"]);
    expect(gates.length).toBe(0);
  });

  it("asks what is shown only after what was let go of, and of what is kept then", async () => {
    const { hands, log, step, gates } = world();
    void hands.commit(edit("a"));
    hands.preview(edit("b"));
    expect(gates.length).toBe(1);
    await step();
    await step();
    expect(log).toEqual(["commit a a", "preview ab"]);
  });

  it("says that an edit is on its way from the moment it is let go of until it is answered", async () => {
    const { hands, step, held } = world();
    hands.preview(edit("a"));
    expect(held.length).toBe(0);
    void hands.commit(edit("b"));
    void hands.commit(edit("bad"));
    expect(held.length).toBe(2);
    for (let i = 0; i < 3; i++) await step();
    expect(held.length).toBe(0);
  });

  it("takes up an edit that comes just as the last one is done", async () => {
    for (let after = 0; after < 8; after++) {
      const { hands, log, step } = world();
      const late = hands.commit(edit("a")).then(async () => {
        for (let i = 0; i < after; i++) await Promise.resolve();
        void hands.commit(edit("b"));
      });
      await step();
      await late;
      await step();
      expect(log, `${after} turns later`).toEqual(["commit a a", "commit ab b"]);
    }
  });

  it("goes on after an edit that could not even be made", async () => {
    const { hands, log, step } = world();
    const broken = hands.commit(() => {
      throw new Error("no such part");
    });
    expect(await broken).toBeNull();
    void hands.commit(edit("a"));
    await step();
    expect(log).toContain("no such part");
    expect(log.at(-1)).toBe("commit a a");
  });

  it("is asked again when something else was kept while it was on its way", async () => {
    const { hands, log, step, keep } = world();
    void hands.commit(edit("a"));
    keep("named ");
    await step();
    expect(log).toEqual([]);
    await step();
    expect(log).toEqual(["commit named a a"]);
  });

  it("keeps an edit by itself on what was kept while the server was silent", async () => {
    const { hands, log, step, keep } = world();
    const alone = (kept: Layout) => layoutNamed(`${kept.name}moved`);
    void hands.commit(edit("away"), { alone, name: "Changed OL" });
    keep("named ");
    await step();
    expect(log).toEqual(["commit named moved Changed OL"]);
  });

  it("shows nothing more of what was called off, but takes what was let go of", async () => {
    const { hands, log, step } = world();
    hands.preview(edit("a"));
    hands.callOff();
    await step();
    expect(log).toEqual(["preview "]);
    void hands.commit(edit("b"));
    hands.preview(edit("c"));
    hands.callOff();
    await step();
    await step();
    expect(log).toEqual(["preview ", "preview ", "commit b b"]);
  });

  it("never drops what was let go of, and adds keys up", async () => {
    const { hands, log, step } = world();
    hands.preview(edit("a"));
    const both = [hands.commit(edit("b")), hands.commit(edit("c"))];
    for (let i = 0; i < 3; i++) await step();
    expect((await Promise.all(both)).map((e) => e?.words)).toEqual(["b", "c"]);
    expect(log).toEqual(["commit b b", "commit bc c"]);
  });

  it("goes back to what holds when an edit is refused", async () => {
    const { hands, log, step } = world();
    const first = hands.commit(edit("a"));
    await step();
    const second = hands.commit(edit("bad"));
    await step();
    expect((await first)?.words).toBe("a");
    expect(await second).toBeNull();
    expect(log).toEqual(["commit a a", "preview a", "refused"]);
  });

  it("passes over an edit that no longer has anything to change", async () => {
    const { hands, log } = world();
    expect(await hands.commit(() => null)).toBeNull();
    expect(log).toEqual([]);
  });

  it("keeps what it can of an edit while the server is away, but not what it refuses", async () => {
    const { hands, log, step } = world();
    const alone = { alone: (l: Layout) => layoutNamed(`${l.name}!`), name: "Moved", soon: true };
    const away = hands.commit(edit("away"), alone);
    await step();
    expect((await away)?.words).toBe("Moved");
    const bad = hands.commit(edit("bad"), alone);
    await step();
    expect(await bad).toBeNull();
    expect(log).toEqual(["commit ! Moved soon", "preview !", "refused"]);
  });

  it("holds on to an edit the core could not be asked about, and asks again", async () => {
    const { hands, log, step, gates, tries, held, kept } = world();
    let name = "away";
    void hands.commit(() => ({ do: "remove", id: name }) as Edit);
    void hands.commit(edit("b"));
    expect(kept()).toEqual(["away", "b"]);
    await step();
    expect(log).toEqual([]);
    expect(held.length).toBe(2);
    name = "a";
    tries.shift()?.();
    await Promise.resolve();
    await Promise.resolve();
    expect(gates.length).toBe(1);
    await step();
    expect(kept()).toEqual(["b"]);
    await step();
    expect(log).toEqual(["commit a a", "commit ab b"]);
    expect(kept()).toEqual([]);
  });

  it("takes up what an earlier page had let go of, in order", async () => {
    const { hands, log, step, kept } = world();
    const held = ["a", "b"].map((id) => ({ edit: { do: "remove", id } as Edit, key: id }));
    hands.takeUp(held);
    expect(kept()).toEqual(["a", "b"]);
    await step();
    await step();
    expect(log).toEqual(["commit a a", "commit ab b"]);
  });

  it("is settled only when everything let go of is answered", async () => {
    const { hands, log, step } = world();
    void hands.commit(edit("a"));
    void hands.commit(edit("b"));
    const settled = hands.settled().then(() => log.push("settled"));
    await step();
    expect(log).toEqual(["commit a a"]);
    await step();
    await settled;
    expect(log).toEqual(["commit a a", "commit ab b", "settled"]);
  });
});
