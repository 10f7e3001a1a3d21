/** The log at the kit as this screen knows it: what is there, and what is still on its way. */
import type { AskRow, KitEntry, KitLine } from "../api/types";

/** What this page wrote and has not yet seen come back, and what it struck out. */
export interface Mine {
  written: Map<string, KitEntry>;
  struck: Set<string>;
}

/** Everything that counts, oldest first: what came back, then what is on its way; each once. */
export function logOf(
  rows: readonly KitLine[],
  unsent: readonly KitEntry[],
  mine: Mine,
): KitEntry[] {
  const out = new Map<string, KitEntry>();
  for (const { by: _, ...entry } of rows) out.set(entry.key, entry);
  for (const key of out.keys()) mine.written.delete(key);
  for (const e of [...mine.written.values(), ...unsent]) if (!out.has(e.key)) out.set(e.key, e);
  return [...out.values()].filter((e) => !mine.struck.has(e.key));
}

/** Whether two are of the same lines: what comes back of one's own differs only by when it came. */
export const sameLines = (one: readonly KitEntry[], two: readonly KitEntry[]) =>
  one.length === two.length && one.every((e, n) => e.key === two[n]?.key);

/** Whether anything in the log says where a mic stands. */
export const measuredBy = (log: readonly KitEntry[]) =>
  log.some((e) => e.what === "reading" || e.cord === "same");

/** That a mic was moved or nudged: what was read at it is no longer sure. */
export const touchedEntry = (mic: string) => ({
  what: "touched" as const,
  mic,
  to: null,
  metres: null,
});

/** Whether two are between the same ends, whichever is named first. */
export const sameSpan = (e: { mic: string; to?: string | null }, ask: Span) =>
  (e.mic === ask.mic && (e.to ?? null) === ask.to) || (e.mic === ask.to && e.to === ask.mic);

type Span = Pick<AskRow, "mic" | "to">;

/** Which readings of the list are dealt with by entries that no answer has counted yet. */
export function dealtWith(asks: readonly AskRow[], fresh: readonly KitEntry[]): Set<number> {
  const done = new Set<number>();
  for (const e of fresh) {
    asks.forEach((ask, n) => {
      if (e.what === "touched" && (ask.mic === e.mic || ask.to === e.mic) && ask.read_m !== null)
        done.delete(n);
      const settled = e.what === "reading" || e.what === "skip" || e.cord === "same";
      if (settled && sameSpan(e, ask)) done.add(n);
    });
  }
  return done;
}

/** The next reading to take; null when all are taken or left. */
export function nextAsk(asks: readonly AskRow[], fresh: readonly KitEntry[]): number | null {
  const done = dealtWith(asks, fresh);
  const at = asks.findIndex(
    (ask, n) => !done.has(n) && (ask.state === "to read" || ask.state === "again"),
  );
  return at < 0 ? null : at;
}

/** Which mics are ticked, by the newest line of each. */
export function tickedOf(log: readonly KitEntry[]): Set<string> {
  const up = new Set<string>();
  for (const e of log) {
    if (e.what === "tick") up.add(e.mic);
    if (e.what === "untick") up.delete(e.mic);
  }
  return up;
}
