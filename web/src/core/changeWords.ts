/** Differences between two layouts as sentences, in tape terms. */
import type { Change } from "../api/types";
import { lengthWithUnit, type Ruler } from "./units";

/** What became of it, without what it is of. */
function became(c: Change, ruler: Ruler): string {
  if (c.moved_m == null) return c.words;
  const t = (m: number) => lengthWithUnit(m, ruler);
  const moved = `${c.words} ${t(c.moved_m)}`;
  if (!c.snare_m || !c.kick_m) return moved;
  const [snare, kick] = [c.snare_m, c.kick_m].map(([was, now]) => `${t(was)} → ${t(now)}`);
  return `${moved}; snare ${snare}, kick ${kick}`;
}

/** A sentence for each: what became the same of several, a pair that was raised, is one. */
export function changeLines(changes: readonly Change[], ruler: Ruler): string[] {
  const of = new Map<string, string[]>();
  for (const c of changes) {
    const words = became(c, ruler);
    of.set(words, [...(of.get(words) ?? []), c.what]);
  }
  return [...of].map(([words, what]) => `${what.join(", ")}: ${words}`);
}
