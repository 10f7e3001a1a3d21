/** A panel whose server was away for a while says what it has to say when it is back. */
import { QueryClient, QueryObserver } from "@tanstack/react-query";
import { afterEach, beforeEach, expect, it, vi } from "vitest";
import { asking } from "./asking";
import { Answered, Refused, Unreached } from "./client";

// Without a window nothing is asked at intervals: it would be a server that draws pages.
vi.hoisted(() => Object.assign(globalThis, { window: globalThis }));

const problem = (status: number) => ({ type: "", title: "", status, detail: "said why" });

function shown(...faults: Error[]) {
  const asked: number[] = [];
  const queryFn = () => {
    asked.push(Date.now());
    const fault = faults.shift();
    return fault ? Promise.reject(fault) : Promise.resolve("said");
  };
  const queries = new QueryClient(asking);
  const panel = new QueryObserver(queries, { queryKey: ["panel"], queryFn });
  const leave = panel.subscribe(() => {});
  return { asked, panel, leave };
}

beforeEach(() => {
  vi.useFakeTimers();
});
afterEach(() => {
  vi.useRealTimers();
});

it("is asked again by itself, however long nobody answered", async () => {
  const away = Array.from({ length: 9 }, () => new Unreached(new TypeError("no network")));
  const { panel, leave } = shown(...away);
  await vi.advanceTimersByTimeAsync(8000);
  expect(panel.getCurrentResult().error?.message).toBe("The server cannot be reached just now.");
  await vi.advanceTimersByTimeAsync(60_000);
  expect(panel.getCurrentResult().data).toBe("said");
  expect(panel.getCurrentResult().error).toBeNull();
  leave();
});

it("asks one that failed at it once a minute, and one that is away every few seconds", async () => {
  const hour = <T extends Error>(fault: () => T) => shown(...Array.from({ length: 999 }, fault));
  const failed = hour(() => new Answered(problem(500), true));
  const away = hour(() => new Unreached(new TypeError("no network")));
  // Four in a row, one, two and four seconds apart; then all of those again.
  await vi.advanceTimersByTimeAsync(7500);
  expect([failed.asked.length, away.asked.length]).toEqual([4, 4]);
  await vi.advanceTimersByTimeAsync(5000);
  expect([failed.asked.length, away.asked.length]).toEqual([4, 5]);
  await vi.advanceTimersByTimeAsync(55_000);
  expect(failed.asked.length).toBe(5);
  for (const { leave } of [failed, away]) leave();
});

it("is asked again where the line was too long", async () => {
  const { panel, leave } = shown(new Answered(problem(503), true));
  await vi.advanceTimersByTimeAsync(1500);
  expect(panel.getCurrentResult().data).toBe("said");
  leave();
});

it("keeps what was refused, and asks no more once it has its answer", async () => {
  const refused = shown(new Refused(problem(422), true));
  await vi.advanceTimersByTimeAsync(60_000);
  expect(refused.asked).toHaveLength(1);
  expect(refused.panel.getCurrentResult().error?.message).toBe("said why");
  refused.leave();
  const answered = shown();
  await vi.advanceTimersByTimeAsync(60_000);
  expect(answered.asked).toHaveLength(1);
  answered.leave();
});
