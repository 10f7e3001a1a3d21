/** How a line is told: what was heard of it in a word, and when. */
import type { Tried } from "../api/types";

export const HEARD: readonly (readonly [Tried["verdict"], string])[] = [
  ["works", "Works"],
  ["maybe", "Maybe"],
  ["no", "No"],
];

export const HEARD_WORD = Object.fromEntries(HEARD) as Record<Tried["verdict"], string>;

export const atClock = (at: string) =>
  new Date(at).toLocaleTimeString([], { hour: "2-digit", minute: "2-digit", hourCycle: "h23" });

export const onDay = (at: string) =>
  new Date(at).toLocaleDateString(undefined, { dateStyle: "medium" });

/** The hour; with the day where that was not today. */
export function when(at: string, now = new Date()): string {
  const day = new Date(at).toDateString() === now.toDateString() ? "" : `${onDay(at)}, `;
  return day + atClock(at);
}

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
