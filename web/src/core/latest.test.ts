import { describe, expect, it } from "vitest";
import { Latest } from "./latest";

/** A server whose answers come when they are told to. */
function slow() {
  const asked: number[] = [];
  const open: ((fail?: boolean) => void)[] = [];
  const ask = (q: number) =>
    new Promise<number>((yes, no) => {
      asked.push(q);
      open.push((fail) => (fail ? no(new Error(`no ${q}`)) : yes(q * 10)));
    });
  const settle = async (fail = false) => {
    open.shift()?.(fail);
    await new Promise((r) => setTimeout(r, 0));
  };
  return { asked, ask, settle };
}

describe("Latest", () => {
  it("asks one at a time and skips what was overtaken while waiting", async () => {
    const server = slow();
    const got: number[] = [];
    const hands = new Latest(
      server.ask,
      (a) => got.push(a),
      () => undefined,
    );
    for (const q of [1, 2, 3, 4]) hands.want(q);
    expect(server.asked).toEqual([1]);
    await server.settle();
    expect(server.asked).toEqual([1, 4]);
    await server.settle();
    expect(got).toEqual([10, 40]);
  });

  it("drops the answer to what was called off, and can be asked again", async () => {
    const server = slow();
    const got: number[] = [];
    const hands = new Latest(
      server.ask,
      (a) => got.push(a),
      () => undefined,
    );
    hands.want(1);
    hands.want(2);
    hands.callOff();
    await server.settle();
    expect(got).toEqual([]);
    hands.want(3);
    await server.settle();
    expect(server.asked).toEqual([1, 3]);
    expect(got).toEqual([30]);
  });

  it("tells a refusal and goes on with what waits", async () => {
    const server = slow();
    const got: (number | string)[] = [];
    const hands = new Latest(
      server.ask,
      (a) => got.push(a),
      (e) => got.push(e.message),
    );
    hands.want(1);
    hands.want(2);
    await server.settle(true);
    await server.settle();
    expect(got).toEqual(["no 1", 20]);
  });
});
