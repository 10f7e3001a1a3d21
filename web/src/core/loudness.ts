/** The loudness tapes: which tracks stand on which, at which height, and what a fader changes. */
import type { Board, Channel, Layout, Verdict } from "../api/types";
import { micOf } from "./edits";

export const [SOFTEST_DB, LOUDEST_DB] = [-30, 12] as const;
/** What a fader goes down to; the tape ends before. */
export const LEAST_DB = -60;
export const WHOLE = "";

export interface Row {
  /** A drum or cymbal, or the whole kit. */
  source: string;
  name: string;
  tracks: Channel[];
}

/** One tape for each drum and cymbal with tracks of its own, and one for the kit. */
export function rowsOf(layout: Layout): Row[] {
  const parts = [...layout.kit.drums, ...(layout.kit.cymbals ?? [])];
  const of = (c: Channel) => micOf(layout, c.mic)?.job ?? WHOLE;
  return [...parts, { id: WHOLE, name: "Kit" }]
    .map(({ id, name }) => ({
      source: id,
      name,
      tracks: (layout.channels ?? []).filter((c) => of(c) === id),
    }))
    .filter((row) => row.tracks.length > 0);
}

/** A level on the tape: whole half decibels within its ends. */
export const fits = (db: number) =>
  Math.min(Math.max(Math.round(db * 2) / 2, SOFTEST_DB), LOUDEST_DB);

/** Flags that would meet stand one above the other: the lane of each, from the tape up. */
export function lanesOf(spots: readonly { id: string; x: number; wide: number }[]) {
  const ends: number[] = [];
  const out = new Map<string, number>();
  for (const spot of [...spots].sort((a, b) => a.x - b.x || a.id.localeCompare(b.id))) {
    let lane = ends.findIndex((end) => end + 3 <= spot.x - spot.wide / 2);
    if (lane < 0) lane = ends.length;
    ends[lane] = spot.x + spot.wide / 2;
    out.set(spot.id, lane);
  }
  return { lane: out, count: Math.max(ends.length, 1) };
}

export interface Turned {
  pair: string;
  before: Verdict;
  after: Verdict;
}

const QUIET: Verdict[] = ["no matter", "behind", "together"];

/** The pairs whose mark comes up, goes or turns into another between two boards. */
export function turnedOver(before: Board, after: Board): Turned[] {
  if (before.pair_a.length !== after.pair_a.length) return [];
  return after.worst.flatMap((now, i) => {
    const was = before.worst[i];
    if (was === undefined || was === now || (QUIET.includes(was) && QUIET.includes(now))) return [];
    return [{ pair: `${after.pair_a[i]}–${after.pair_b[i]}`, before: was, after: now }];
  });
}
