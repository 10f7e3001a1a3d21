import { expect, it, vi } from "vitest";
import { Shared } from "./shared";

it("tells of a change, not of the same again, and nobody who left", () => {
  const shared = new Shared<string | null>(null);
  const [stays, goes] = [vi.fn(), vi.fn()];
  shared.subscribe(stays);
  const leave = shared.subscribe(goes);
  shared.set("OL");
  expect(shared.get()).toBe("OL");
  leave();
  shared.set("OL");
  expect([stays.mock.calls.length, goes.mock.calls.length]).toEqual([1, 1]);
  shared.set(null);
  expect([stays.mock.calls.length, goes.mock.calls.length]).toEqual([2, 1]);
});
