/** What the worker sends back: by shared memory, by message, or that there is no answer. */
import { beforeEach, expect, it, vi } from "vitest";
import type { Ask } from "./asker.worker";
import { Mailbox } from "./mailbox";

const ask: Ask = {
  number: 7,
  path: "/api/follow",
  token: "abc",
  name: "hand",
  rest: '"mic":"OR"}',
  boxed: true,
};
let box: Mailbox;
let said: unknown[];

/** A worker of its own, told these one after the other; the network answers so. */
async function worked(answer: (body: string) => Response, messages: unknown[]): Promise<void> {
  const worker: { postMessage: unknown; onmessage?: (e: { data: unknown }) => Promise<void> } = {
    postMessage: (words: unknown) => said.push(words),
  };
  vi.stubGlobal("self", worker);
  vi.stubGlobal("fetch", async (_: string, { body }: { body: string }) => answer(body));
  vi.resetModules();
  await import("./asker.worker");
  for (const data of messages) await worker.onmessage?.({ data });
}

async function told(answer: Response, more: Partial<Ask> = {}): Promise<unknown[]> {
  await worked(() => answer, [box.memory, { ...ask, ...more }]);
  return said;
}

beforeEach(() => {
  vi.stubGlobal("crossOriginIsolated", true);
  box = Mailbox.made() as Mailbox;
  said = [];
});

it("lays numbers into the box and calls", async () => {
  expect(await told(Response.json({ mic: "OR" }))).toEqual(["look"]);
  expect(box.take()).toEqual({ numbers: [7], newest: { mic: "OR" } });
});

it("sends words, and what has no room, as a message", async () => {
  expect(await told(Response.json("words"), { boxed: false })).toEqual([
    { number: 7, answer: "words" },
  ]);
  const long = "x".repeat(40_000);
  said = [];
  expect(await told(Response.json(long))).toEqual([{ number: 7, answer: long }]);
  expect(box.take()).toBeNull();
});

it("says that there is no answer: refused, or a page of something on the way", async () => {
  await told(new Response("{}", { status: 500 }));
  await told(new Response("<h1>Sign in to this network</h1>"));
  expect(said).toEqual([
    { number: 7, answer: null },
    { number: 7, answer: null },
  ]);
  expect(box.take()).toBeNull();
});

it("sends the layout it was told of once, and again where the server has forgotten it", async () => {
  const bodies: { layout?: { mics: number }; name: string; mic: string }[] = [];
  const first = { ...ask, name: "first" };
  const next = { ...ask, name: "next" };
  const messages = [
    { name: "first", layout: '{"mics":1}' },
    first,
    first,
    { name: "next", layout: '{"mics":2}' },
    next,
    next,
  ];
  let asked = 0;
  await worked((body) => {
    bodies.push(JSON.parse(body));
    return ++asked === 4 ? new Response("", { status: 409 }) : Response.json({});
  }, messages);
  expect(bodies.map((b) => [b.name, b.layout?.mics, b.mic])).toEqual([
    ["first", 1, "OR"],
    ["first", undefined, "OR"],
    ["next", 2, "OR"],
    ["next", undefined, "OR"],
    ["next", 2, "OR"],
  ]);
});

it("asks over a line, the whole there too, and by request what the line does not answer", async () => {
  const over: string[][] = [];
  const bytes = new TextEncoder().encode('"over the line"');
  const replies = [{ status: 200, bytes }, { status: 409, bytes }, { status: 200, bytes }, null];
  class OpenLine {
    constructor(readonly address: string) {}
    begin() {
      over.push(["begin", this.address]);
    }
    async ask(path: string, text: string) {
      over.push([path, text]);
      return replies.shift();
    }
  }
  vi.doMock("./openLine", () => ({ OpenLine }));
  const plain = { ...ask, boxed: false };
  const bodies: string[] = [];
  await worked(
    (body) => {
      bodies.push(body);
      return Response.json("by request");
    },
    [{ line: "ws://here" }, { name: "hand", layout: "{}" }, plain, plain, plain],
  );
  vi.doUnmock("./openLine");
  const [whole, named] = ['{"name":"hand","layout":{},"mic":"OR"}', '{"name":"hand","mic":"OR"}'];
  expect(over).toEqual([
    ["begin", "ws://here"],
    ["/api/follow", whole],
    ["/api/follow", named],
    ["/api/follow", whole],
    ["/api/follow", named],
  ]);
  expect(bodies).toEqual([named]);
  expect(said).toEqual([
    { number: 7, answer: "over the line" },
    { number: 7, answer: "over the line" },
    { number: 7, answer: "by request" },
  ]);
});
