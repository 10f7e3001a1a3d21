/** What the answers of servers, and of things on the way to them, mean for an edit. */
import { beforeEach, describe, expect, it, vi } from "vitest";
import { door } from "../core/door";
import { api, fateOf, must } from "./client";

// A browser knows its own address; here it must be told before the client is made.
vi.hoisted(() => {
  const Plain = globalThis.Request;
  globalThis.Request = class extends Plain {
    constructor(to: RequestInfo | URL, how?: RequestInit) {
      super(typeof to === "string" ? new URL(to, "http://here") : to, how);
    }
  };
});

const PROBLEM = { type: "about:blank", title: "No", detail: "said why", status: 0 };

function answers(...given: [status: number, type?: string, body?: string][]) {
  const asked: Request[] = [];
  vi.stubGlobal("document", { cookie: "a=b; csrftoken=fresh" });
  vi.stubGlobal("fetch", (request: Request | string) => {
    asked.push(request instanceof Request ? request : new Request(request));
    const [status, type = "application/problem+json", body] = given.shift() ?? [200];
    const text = body ?? JSON.stringify({ ...PROBLEM, status });
    return Promise.resolve(new Response(text, { status, headers: { "Content-Type": type } }));
  });
  return asked;
}

const path = { params: { path: { pk: 1 } } };
const save = () => must(api.POST("/api/layouts/{pk}/undo", { ...path, body: { version: 1 } }));

async function fate(): Promise<string> {
  try {
    await save();
  } catch (error) {
    return fateOf(error);
  }
  return "done";
}

describe("an answer", () => {
  beforeEach(() => {
    door.open();
  });

  it.each([
    [400, "refused"],
    [422, "refused"],
    [401, "stranger"],
    [404, "gone"],
    [403, "away"],
    [408, "away"],
    [429, "away"],
    [500, "away"],
    [502, "away"],
    [503, "away"],
    [504, "away"],
  ])("of %i means %s", async (status, meant) => {
    answers([status], [200], [status]);
    expect(await fate()).toBe(meant);
    expect(door.isShut()).toBe(status === 401);
  });

  it.each([400, 401, 404, 409, 422, 502])(
    "of %i by something on the way is no refusal",
    async (s) => {
      answers([s, "text/html", "<h1>Gateway</h1>"]);
      expect(await fate()).toBe("away");
      expect(door.isShut()).toBe(false);
    },
  );

  it("is a conflict only with the state there is", async () => {
    answers([409, undefined, JSON.stringify({ ...PROBLEM, status: 409, current: { id: 1 } })]);
    expect(await fate()).toBe("conflict");
    answers([409]);
    expect(await fate()).toBe("away");
  });

  it("that says 200 with a page of something else is none", async () => {
    answers([200, "text/html", "<h1>Sign in to this network</h1>"]);
    expect(await fate()).toBe("away");
  });

  it("about a token that was lost is asked once more with a fresh one", async () => {
    const asked = answers([403], [200, "application/json", "{}"], [200, "application/json", "{}"]);
    expect(await fate()).toBe("done");
    expect(asked.map((r) => new URL(r.url).pathname)).toEqual([
      "/api/layouts/1/undo",
      "/api/account/me",
      "/api/layouts/1/undo",
    ]);
    expect(asked[2]?.headers.get("X-CSRFToken")).toBe("fresh");
    expect(await asked[2]?.json()).toEqual({ version: 1 });
  });

  it("that never comes is no refusal", async () => {
    vi.stubGlobal("fetch", () => Promise.reject(new TypeError("no network")));
    expect(await fate()).toBe("away");
    await expect(save()).rejects.toThrow("The server cannot be reached just now.");
    vi.stubGlobal("fetch", () => Promise.reject(new DOMException("left", "AbortError")));
    await expect(save()).rejects.toThrow("left");
  });
});
