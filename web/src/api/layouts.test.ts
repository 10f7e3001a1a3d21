import { afterEach, expect, it, vi } from "vitest";
import { askAhead, layoutOf } from "./layouts";

// A browser knows its own address; here it must be told before the client is made.
vi.hoisted(() => {
  const Plain = globalThis.Request;
  globalThis.Request = class extends Plain {
    constructor(to: RequestInfo | URL, how?: RequestInit) {
      super(typeof to === "string" ? new URL(to, "http://here") : to, how);
    }
  };
});

const answers = (...all: (Response | Error)[]) => {
  const asked: string[] = [];
  vi.stubGlobal("fetch", (request: Request) => {
    asked.push(new URL(request.url).pathname);
    const next = all.shift();
    return next instanceof Response ? Promise.resolve(next) : Promise.reject(next);
  });
  return asked;
};
const told = (body: object, status = 200) =>
  new Response(JSON.stringify(body), {
    status,
    headers: { "content-type": status === 200 ? "application/json" : "application/problem+json" },
  });

afterEach(() => vi.unstubAllGlobals);

it("takes what was asked ahead once", async () => {
  const asked = answers(told({ id: 7, version: 1 }), told({ id: 7, version: 2 }));
  askAhead("/layouts/7/pairs");
  expect(await layoutOf(7)).toMatchObject({ version: 1 });
  expect(await layoutOf(7)).toMatchObject({ version: 2 });
  expect(asked).toEqual(["/api/layouts/7", "/api/layouts/7"]);
});

it("asks again where that came to nothing: a stranger's, no answer, another layout", async () => {
  for (const first of [told({ detail: "who?" }, 401), new TypeError("away")]) {
    answers(first, told({ id: 7, version: 3 }));
    askAhead("/layouts/7");
    expect(await layoutOf(7)).toMatchObject({ version: 3 });
  }
  answers(told({ id: 7 }), told({ id: 8 }));
  askAhead("/layouts/7");
  expect(await layoutOf(8)).toMatchObject({ id: 8 });
});

it("asks nothing for an address that is no layout", () => {
  const asked = answers();
  for (const address of ["/", "/layouts/x", "/studios/1/locker", "/layouts/7x"]) askAhead(address);
  expect(asked).toEqual([]);
});
