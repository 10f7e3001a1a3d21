/** Edits of the kit: in order, newest place only, and nothing let go of is lost. */
import { describe, expect, it } from "vitest";
import type { KitEdit, KitEdited, Layout } from "../api/types";
import { KitHands, type Make } from "./kitHands";

const layoutNamed = (name: string) => ({ name }) as Layout;

/** A core that appends each edit's name to the layout's, and waits to be let go on. */
function world() {
  const log: string[] = [];
  let still = layoutNamed("");
  const gates: (() => void)[] = [];
  const hands = new KitHands({
    still: () => still,
    ask: (layout, edit) =>
      new Promise<KitEdited>((resolve, reject) => {
        const name = (edit as unknown as { id: string }).id;
        gates.push(() =>
          name === "bad"
            ? reject(new Error("refused"))
            : resolve({ layout: layoutNamed(layout.name + name), words: name, moved: [] }),
        );
      }),
    preview: (layout) => log.push(`preview ${layout.name}`),
    commit: (layout, what) => {
      still = layout;
      log.push(`commit ${layout.name} ${what}`);
    },
    trouble: (error) => log.push(error.message),
  });
  const step = async () => {
    gates.shift()?.();
    await new Promise((r) => setTimeout(r));
  };
  return { hands, log, step, gates };
}

const edit =
  (id: string): Make =>
  () =>
    ({ do: "remove", id }) as KitEdit;

describe("kit hands", () => {
  it("asks one at a time and drops all but the newest place", async () => {
    const { hands, log, step, gates } = world();
    for (const id of ["a", "b", "c"]) hands.preview(edit(id));
    expect(gates.length).toBe(1);
    await step();
    await step();
    expect(log).toEqual(["preview a", "preview c"]);
  });

  it("never drops what was let go of, and adds keys up", async () => {
    const { hands, log, step } = world();
    hands.preview(edit("a"));
    const both = [hands.commit(edit("b")), hands.commit(edit("c"))];
    for (let i = 0; i < 3; i++) await step();
    expect(await Promise.all(both)).toEqual([true, true]);
    expect(log).toEqual(["commit b b", "commit bc c"]);
  });

  it("goes back to what holds when an edit is refused", async () => {
    const { hands, log, step } = world();
    const first = hands.commit(edit("a"));
    await step();
    const second = hands.commit(edit("bad"));
    await step();
    expect(await first).toBe(true);
    expect(await second).toBe(false);
    expect(log).toEqual(["commit a a", "preview a", "refused"]);
  });

  it("passes over an edit that no longer has anything to change", async () => {
    const { hands, log } = world();
    expect(await hands.commit(() => null)).toBe(false);
    expect(log).toEqual([]);
  });
});
