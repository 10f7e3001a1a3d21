import type { MouseEvent, PointerEvent } from "react";
import { beforeEach, expect, it, vi } from "vitest";
import { Holding } from "./held";

const press = { button: 0 } as PointerEvent;
const click = { detail: 1 } as MouseEvent;
const byKey = { detail: 0 } as MouseEvent;

let steps = 0;
let listens: Holding["listens"];

beforeEach(() => {
  vi.useFakeTimers();
  steps = 0;
  listens = new Holding(() => steps++).listens;
});

it("steps once for a press, where it is let go of", () => {
  listens.onPointerDown(press);
  vi.advanceTimersByTime(400);
  expect(steps).toBe(0);
  listens.onPointerUp();
  listens.onClick(click);
  vi.advanceTimersByTime(5000);
  expect(steps).toBe(1);
});

it("goes on while it is held, and to let go is no step more", () => {
  listens.onPointerDown(press);
  vi.advanceTimersByTime(450 + 3 * 140);
  expect(steps).toBe(4);
  listens.onPointerUp();
  listens.onClick(click);
  vi.advanceTimersByTime(5000);
  expect(steps).toBe(4);
  listens.onClick(byKey);
  expect(steps).toBe(5);
});

it.each(["onPointerCancel", "onPointerLeave"] as const)(
  "ends where the finger is taken away: %s",
  (how) => {
    listens.onPointerDown(press);
    listens[how]();
    vi.advanceTimersByTime(5000);
    expect(steps).toBe(0);
  },
);

it("leaves another button of the mouse alone", () => {
  listens.onPointerDown({ ...press, button: 2 });
  vi.advanceTimersByTime(5000);
  expect(steps).toBe(0);
});
