/** Answers of the worker: by shared memory or by message, one a frame, the newest first. */
import { beforeEach, describe, expect, it, vi } from "vitest";
import type { Layout } from "../api/types";
import type { Ask, Known } from "./asker.worker";
import type { Move } from "./following";
import { Mailbox } from "./mailbox";

const still = { name: "still" };
const at = (x: number, words = false) =>
  ({
    still,
    mic: { id: "OR", position_m: [x, 0, 1], aim: [0, 0, -1] },
    focus: null,
    words,
  }) as unknown as Move;
const bytes = (answer: unknown) => new TextEncoder().encode(JSON.stringify(answer));

describe("what follows a hand", () => {
  let posted: (Ask | Known | SharedArrayBuffer)[];
  let page: { onmessage?: (event: { data: unknown }) => void };
  let waiting: (() => void)[];
  let shown: unknown[];
  let turned: () => void;
  const say = (data: unknown) => page.onmessage?.({ data });
  const settled = () => new Promise((done) => setTimeout(done));
  const frame = async () => {
    for (const next of waiting.splice(0)) next();
    await settled();
    return shown.splice(0);
  };

  /** Where the page is, and what its browser has. */
  function pageAt(protocol: string, window: object): void {
    vi.stubGlobal("window", window);
    vi.stubGlobal("location", { protocol, host: "drums.example:8321" });
  }

  /** A page of its own for each test, isolated or not: it asks from so many places. */
  async function asks(isolated: boolean, moves: Move[], ahead = false): Promise<Ask[]> {
    vi.resetModules();
    vi.stubGlobal("crossOriginIsolated", isolated);
    vi.stubGlobal("document", {
      cookie: "csrftoken=abc",
      hidden: false,
      addEventListener: (_: string, hear: () => void) => (turned = hear),
    });
    vi.stubGlobal("requestAnimationFrame", (next: () => void) => waiting.push(next));
    vi.stubGlobal(
      "Worker",
      class {
        onmessage?: (event: { data: unknown }) => void;
        constructor() {
          page = this;
        }
        postMessage(said: Ask | Known | SharedArrayBuffer) {
          posted.push(said);
        }
      },
    );
    const { ready } = await import("./asker");
    const { follow } = await import("./handAsks");
    if (ahead) ready(still as unknown as Layout);
    for (const move of moves)
      void follow(move).then((told) => shown.push([move.mic.position_m[0], told]));
    await settled();
    return posted.filter((said) => "number" in said);
  }

  beforeEach(() => {
    [posted, waiting, shown] = [[], [], []];
    pageAt("http:", {});
  });

  it.each([
    ["http:", "ws://drums.example:8321/api/hand"],
    ["https:", "wss://drums.example:8321/api/hand"],
  ])("says where a line can be opened, where the browser has any", async (protocol, line) => {
    pageAt(protocol, { WebSocket: class {} });
    await asks(false, [at(1)]);
    expect(posted[0]).toEqual({ line });
  });

  it.each([false, true])("tells of the layout once for a hand, ahead or not", async (ahead) => {
    const [first, second] = await asks(false, [at(1), at(2)], ahead);
    const { name } = first as Ask;
    expect(posted).toEqual([{ name, layout: '{"name":"still"}' }, first, second]);
    expect(second?.name).toBe(name);
  });

  it("tells of it again, under another name, after an answer that was none", async () => {
    vi.doMock("../api/client", () => ({
      api: { POST: vi.fn() },
      csrfToken: () => "abc",
      exactly: async () => "asked plainly",
    }));
    const [first] = await asks(false, [at(1)]);
    await frame();
    say({ number: 1, answer: null });
    await settled();
    expect(shown).toEqual([[1, "asked plainly"]]);
    const { follow } = await import("./handAsks");
    vi.doUnmock("../api/client");
    void follow(at(2));
    const told = posted.filter((said): said is Known => "layout" in said);
    expect(told.map((t) => t.layout)).toEqual(['{"name":"still"}', '{"name":"still"}']);
    expect(told[1]?.name).not.toBe(first?.name);
  });

  it("draws the first answer as it comes, and the newest of the others with the frame", async () => {
    await asks(false, [at(1), at(2), at(3)]);
    await frame();
    say({ number: 1, answer: 1 });
    await settled();
    expect(shown.splice(0)).toEqual([[1, 1]]);
    say({ number: 2, answer: 2 });
    say({ number: 3, answer: 3 });
    await settled();
    expect(shown).toEqual([]);
    expect(await frame()).toEqual([
      [3, 3],
      [2, 2],
    ]);
  });

  it("draws words with a frame of their own, one after the other", async () => {
    await asks(false, [at(1, true), at(2), at(3, true)]);
    await frame();
    say({ number: 1, answer: "of one" });
    say({ number: 2, answer: 2 });
    say({ number: 3, answer: "of three" });
    await settled();
    expect(shown.splice(0)).toEqual([[2, 2]]);
    expect(await frame()).toEqual([[1, "of one"]]);
    expect(await frame()).toEqual([[3, "of three"]]);
  });

  it("takes from shared memory with the frame, though no message has come through", async () => {
    const [first, second] = await asks(true, [at(1), at(2)]);
    const memory = posted.find((said) => said instanceof SharedArrayBuffer) as SharedArrayBuffer;
    expect([first?.boxed, second?.boxed]).toEqual([true, true]);
    const box = new Mailbox(memory);
    box.put(1, bytes("one"));
    box.put(2, bytes("two"));
    // The newest first; what is overtaken is not even read, and dropped by whoever asked.
    expect(await frame()).toEqual([
      [2, "two"],
      [1, "two"],
    ]);
  });

  it("hears the call of a page at rest", async () => {
    await asks(true, [at(1)]);
    await frame();
    const box = new Mailbox(
      posted.find((said) => said instanceof SharedArrayBuffer) as SharedArrayBuffer,
    );
    box.put(1, bytes("one"));
    expect(box.call()).toBe(true);
    say("look");
    await settled();
    expect(shown).toEqual([[1, "one"]]);
    expect(box.call()).toBe(true);
  });

  it("asks other things of the same layout, which are overtaken by their own kind alone", async () => {
    await asks(true, [at(1)]);
    const { beside } = await import("./asker");
    const again = vi.fn(async () => "asked again");
    const ask = (kind: string, x: number) => {
      const question = { path: `/api/${kind}`, still: still as unknown as Layout, more: { x } };
      void beside(question, again).then((told) => shown.push([`${kind} ${x}`, told]));
    };
    ask("here", 1);
    ask("here", 2);
    const [, { name }, , first] = posted as [unknown, Known, Ask, Ask];
    expect(first).toEqual({
      number: 2,
      path: "/api/here",
      token: "abc",
      name,
      rest: '"x":1}',
      boxed: true,
    });
    expect(posted).toHaveLength(5);
    const box = new Mailbox(
      posted.find((said) => said instanceof SharedArrayBuffer) as SharedArrayBuffer,
    );
    box.put(2, bytes("one"));
    box.put(3, bytes("two"));
    expect(await frame()).toEqual([
      ["here 2", "two"],
      ["here 1", "two"],
    ]);
    ask("here", 3);
    ask("there", 1);
    box.put(4, bytes("three"));
    box.put(5, bytes("four"));
    expect(await frame()).toEqual([
      ["there 1", "four"],
      ["here 3", "asked again"],
    ]);
    expect(again).toHaveBeenCalledOnce();
  });

  it("waits for no frame out of sight", async () => {
    await asks(true, [at(1), at(2), at(3)]);
    await frame();
    say({ number: 1, answer: 1 });
    say({ number: 2, answer: 2 });
    await settled();
    expect(shown.splice(0)).toEqual([[1, 1]]);
    (document as { hidden: boolean }).hidden = true;
    turned();
    await settled();
    expect(shown.splice(0)).toEqual([[2, 2]]);
    say({ number: 3, answer: 3 });
    await settled();
    expect(shown).toEqual([[3, 3]]);
  });

  it("leaves words to a message: none of them is overtaken", async () => {
    const [asked] = await asks(true, [at(1, true)]);
    expect(asked?.boxed).toBe(false);
  });
});
