/** The order, the filter and the search of many pairs. What a verdict is comes from the server. */
import type { Board, Layout, PairRow, Verdict } from "../api/types";
import { micOf } from "./edits";

/** Gravest first. */
export const GRAVEST: Verdict[] = [
  "hollow",
  "late",
  "ask the ear",
  "together",
  "behind",
  "no matter",
];

export type MicOrder = "as laid out" | "by drum" | "worst first";

/** The mics along the grid: as laid out, grouped by their drum, or those in most trouble first. */
export function micOrder(layout: Layout, board: Board, order: MicOrder): string[] {
  const ids = board.mic_ids;
  if (order === "as laid out") return ids;
  if (order === "by drum") {
    const parts = [...layout.kit.drums, ...(layout.kit.cymbals ?? [])].map((p) => p.id);
    const place = (id: string) => {
      const mic = micOf(layout, id);
      const job = parts.indexOf(mic?.job ?? "");
      if (job >= 0) return job;
      return parts.length + (mic?.role === "room" ? 1 : 0);
    };
    return sorted(ids, place);
  }
  return sorted(ids, (id) => -(board.trouble[ids.indexOf(id)] ?? 0));
}

function sorted(ids: string[], place: (id: string) => number): string[] {
  return ids
    .map((id, i) => ({ id, i, at: place(id) }))
    .sort((x, y) => x.at - y.at || x.i - y.i)
    .map((x) => x.id);
}

export interface Sieve {
  verdicts: readonly Verdict[];
  words: string;
}

/** Whether a pair is looked for: its verdict among those chosen, a mic's name or drum in the words. */
export function passes(
  layout: Layout,
  pair: { a: string; b: string; verdict: Verdict },
  sieve: Sieve,
): boolean {
  if (sieve.verdicts.length && !sieve.verdicts.includes(pair.verdict)) return false;
  const words = sieve.words.toLowerCase().split(/\s+/).filter(Boolean);
  if (!words.length) return true;
  const texts = [pair.a, pair.b].map((id) => {
    const mic = micOf(layout, id);
    return `${id} ${mic?.name ?? ""} ${mic?.job ?? "kit"} ${mic?.role ?? ""}`.toLowerCase();
  });
  return words.every((w) => texts.some((t) => t.includes(w)));
}

export type Column = "pair" | "source" | "verdict" | "delay" | "level" | "body" | "flipped";

const KEY: Record<Column, (r: PairRow) => number | string> = {
  pair: (r) => `${r.a} ${r.b}`,
  source: (r) => r.source,
  verdict: (r) => GRAVEST.indexOf(r.verdict),
  delay: (r) => -Math.abs(r.delay_s),
  level: (r) => Math.abs(r.level_difference_db),
  body: (r) => r.body_db,
  flipped: (r) => r.body_db - r.flipped_body_db,
};

/** The rows by one column, from what wants most attention; turned round with `down` false. */
export function byColumn(rows: readonly PairRow[], column: Column, down: boolean): PairRow[] {
  const key = KEY[column];
  const way = down ? 1 : -1;
  return [...rows].sort((x, y) => {
    const [a, b] = [key(x), key(y)];
    return (a < b ? -1 : a > b ? 1 : 0) * way;
  });
}
