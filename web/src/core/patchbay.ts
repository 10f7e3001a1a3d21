/** The patch as it is drawn: boxes with their sockets, what is plugged in where, and how it moves. */
import type { Channel, InputBank, Layout } from "../api/types";

export const ROW = 28;
const HEAD = 30;

export interface Box {
  id: string;
  name: string;
  phantom: InputBank["phantom"] | null;
  /** The number of its first socket, counted on from box to box. */
  first: number;
  count: number;
  /** Where its name stands, and its first socket. */
  y: number;
}

/** What a locker that has no inputs is taken for: numbered sockets, as many as are asked for. */
const PLAIN_SOCKETS = 8;

/** The boxes of the locker one below the other; beyond them what is plugged in further. */
export function boxesOf(inputs: readonly InputBank[], channels: readonly Channel[]): Box[] {
  const boxes: Box[] = [];
  let [first, y] = [1, 0];
  const add = (id: string, name: string, phantom: Box["phantom"], count: number) => {
    boxes.push({ id, name, phantom, first, count, y });
    first += count;
    y += HEAD + count * ROW + 8;
  };
  for (const bank of inputs) add(bank.id, bank.name, bank.phantom ?? "each", bank.count);
  const furthest = Math.max(0, ...channels.map((c) => c.input ?? 0));
  const more = inputs.length ? furthest - first + 1 : Math.max(furthest, channels.length, 1);
  const count = inputs.length ? more : Math.ceil(more / PLAIN_SOCKETS) * PLAIN_SOCKETS;
  if (count > 0) add("", inputs.length ? "Not in the locker" : "Inputs", null, count);
  return boxes;
}

/** The middle of a socket, or null where there is none of that number. */
export function socketY(boxes: readonly Box[], input: number | null | undefined): number | null {
  const box = boxes.find((b) => input && input >= b.first && input < b.first + b.count);
  return box && input ? box.y + HEAD + (input - box.first + 0.5) * ROW : null;
}

export const rowY = (n: number) => HEAD + (n + 0.5) * ROW;

export function highOf(boxes: readonly Box[], rows: number): number {
  const last = boxes.at(-1);
  return Math.max(last ? last.y + HEAD + last.count * ROW + 8 : 0, HEAD + rows * ROW + 8);
}

/** The channels that change when one is plugged in there: who was there takes its socket. */
export function pluggedInto(layout: Layout, id: string, input: number | null): Channel[] {
  const channels = layout.channels ?? [];
  const moved = channels.find((c) => c.id === id);
  if (!moved || (moved.input ?? null) === input) return [];
  const there = input === null ? undefined : channels.find((c) => c.input === input);
  const swapped = there ? [{ ...there, input: moved.input ?? null }] : [];
  return [{ ...moved, input }, ...swapped];
}

/** The next socket that is free, up or down from one; null where there is none. */
export function nextFree(
  boxes: readonly Box[],
  channels: readonly Channel[],
  from: number | null | undefined,
  way: 1 | -1,
): number | null {
  const last = boxes.at(-1);
  const total = last ? last.first + last.count - 1 : 0;
  const taken = new Set(channels.map((c) => c.input));
  for (let n = (from ?? 0) + way; n >= 1 && n <= total; n += way) if (!taken.has(n)) return n;
  return null;
}

/** The order of the tracks with one of them moved up or down. */
export function reordered(channels: readonly Channel[], id: string, by: 1 | -1): string[] {
  const ids = channels.map((c) => c.id);
  const at = ids.indexOf(id);
  const to = at + by;
  if (at < 0 || to < 0 || to >= ids.length) return ids;
  ids.splice(at, 1);
  ids.splice(to, 0, id);
  return ids;
}
