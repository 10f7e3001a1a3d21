/** How a line is told, and found among others. */
import type { TakeNamed, Tried } from "../api/types";

export const HEARD: readonly (readonly [Tried["verdict"], string])[] = [
  ["works", "Works"],
  ["maybe", "Maybe"],
  ["no", "No"],
];

export const HEARD_WORD = Object.fromEntries(HEARD) as Record<Tried["verdict"], string>;

/** The songs of some lines, the newest first, each once. */
export function songsOf(lines: readonly Tried[]): string[] {
  return [...new Set(lines.map((l) => l.song).filter(Boolean))];
}

/** What a line of a layout is likely about: its newest take, if that came after the last line. */
export function likelyTake(
  takes: readonly TakeNamed[],
  layout: number,
  lines: readonly Tried[],
): number | null {
  const newest = takes.find((t) => t.layout_id === layout);
  const last = lines.find((l) => l.layout_id === layout);
  const after = newest && (!last || Date.parse(newest.made_at) > Date.parse(last.at));
  return after ? newest.id : null;
}

/** The line before one whose take can be held against this one's: of the same session, newest. */
export function heardBefore(line: Tried, every: readonly Tried[]): Tried | undefined {
  return every.find(
    (l) =>
      l.session_id === line.session_id &&
      Date.parse(l.at) < Date.parse(line.at) &&
      l.take &&
      l.take.id !== line.take?.id,
  );
}

/** Whether a line holds every word: in what was heard, the song, the layout, or what changed. */
export function holds(line: Tried, words: string): boolean {
  const changed = line.since.map((c) => `${c.what} ${c.words}`);
  const text = [line.words, line.song, line.layout, line.session, line.take?.name, ...changed].join(
    " ",
  );
  return words
    .toLowerCase()
    .split(/\s+/)
    .every((word) => text.toLowerCase().includes(word));
}
