/** What the worker sends back: by shared memory, by message, or that there is no answer. */
import { beforeEach, expect, it, vi } from "vitest";
import type { Ask } from "./asker.worker";
import { Mailbox } from "./mailbox";

const ask: Ask = {
  number: 7,
  path: "/api/follow",
  token: "abc",
  name: "hand",
  layout: "{}",
  rest: '"mic":"OR"}',
  boxed: true,
};
let box: Mailbox;
let said: unknown[];

/** Asked of a worker of its own, where the network answers so. */
async function told(answer: Response, more: Partial<Ask> = {}): Promise<unknown[]> {
  const worker: { postMessage: unknown; onmessage?: (e: { data: unknown }) => Promise<void> } = {
    postMessage: (words: unknown) => said.push(words),
  };
  vi.stubGlobal("self", worker);
  vi.stubGlobal("fetch", () => Promise.resolve(answer));
  vi.resetModules();
  await import("./asker.worker");
  await worker.onmessage?.({ data: box.memory });
  await worker.onmessage?.({ data: { ...ask, ...more } });
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
