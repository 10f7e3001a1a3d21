/** How a line is told, and found among others. */
import type { Tried } from "../api/types";

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

/** Whether a line holds every word: in what was heard, the song, the layout, or what changed. */
export function holds(line: Tried, words: string): boolean {
  const changed = line.since.map((c) => `${c.what} ${c.words}`);
  const text = [line.words, line.song, line.layout, line.session, ...changed].join(" ");
  return words
    .toLowerCase()
    .split(/\s+/)
    .every((word) => text.toLowerCase().includes(word));
}
