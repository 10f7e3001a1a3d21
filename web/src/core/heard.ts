/** What the newest take says of pairs, laid over what the plan says. */
import type { LastHeard, PairHits, Verdict } from "../api/types";
import { GRAVEST } from "./pairList";

/** The graver, the higher. */
const rank = (v: Verdict) => -GRAVEST.indexOf(v);

const keyOf = (a: string, b: string) => [a, b].sort().join(" ");

/** A pair on a drum as it was heard; nothing where that drum was not hit or one was not there. */
export function heardOn(
  heard: LastHeard | null | undefined,
  a: string,
  b: string,
  source: string,
): PairHits | undefined {
  const key = keyOf(a, b);
  return heard?.pairs.find((p) => p.source === source && keyOf(p.a, p.b) === key);
}

/** The worst verdict that was heard of each pair, or that on one drum; by both names in order. */
export function heardMarks(
  pairs: readonly PairHits[] | undefined,
  source: string | null,
): Map<string, PairHits> {
  const marks = new Map<string, PairHits>();
  for (const p of pairs ?? []) {
    if (source ? p.source !== source : !p.counts) continue;
    const key = keyOf(p.a, p.b);
    const old = marks.get(key);
    if (!old || rank(p.measured) > rank(old.measured)) marks.set(key, p);
  }
  return marks;
}

/**
 * What was heard where it is worth a sign beside the plan's mark: something is wrong that the plan
 * has not, or something is well that the plan has wrong or left to the ear.
 */
export function heardBeside(
  marks: ReadonlyMap<string, PairHits>,
  a: string,
  b: string,
  planned: Verdict,
): Verdict | null {
  const heard = marks.get(keyOf(a, b))?.measured;
  if (!heard || heard === planned) return null;
  return Math.max(rank(heard), rank(planned)) > rank("together") ? heard : null;
}
