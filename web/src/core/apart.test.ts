/** What is read comes before what is written, whoever asked first. */
import { describe, expect, it, vi } from "vitest";
import { apart } from "./apart";

describe("reading and writing", () => {
  it("are done apart, after the turn that wanted them", async () => {
    const done: string[] = [];
    for (const name of ["a", "b"])
      apart(() => {
        done.push(`read ${name}`);
        return () => done.push(`write ${name}`);
      });
    done.push("wanted");
    await Promise.resolve();
    expect(done).toEqual(["wanted", "read a", "read b", "write a", "write b"]);
  });

  it("go on after a fault, which is told", async () => {
    const [told, written] = [vi.fn(), vi.fn()];
    vi.stubGlobal("reportError", told);
    apart(() => {
      throw new Error("unread");
    });
    apart(() => () => {
      throw new Error("unwritten");
    });
    apart(() => written);
    apart(() => undefined);
    await Promise.resolve();
    expect(written).toHaveBeenCalledOnce();
    expect(told.mock.calls.flat()).toEqual([new Error("unread"), new Error("unwritten")]);
  });

  it("leave to a turn of its own what a writing wants", async () => {
    const done: string[] = [];
    apart(() => () => {
      apart(() => void done.push("later"));
      done.push("first");
    });
    await Promise.resolve();
    expect(done).toEqual(["first"]);
    await Promise.resolve();
    expect(done).toEqual(["first", "later"]);
  });
});
