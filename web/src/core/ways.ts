/** What is done to the channels of a take while it is heard, on two sides held against each other. */
import type { AlignRow, Heard } from "../api/types";
import type { Way } from "./takePlayer";

/** What is done to a channel's time and polarity: this is what two sides may differ in. */
export interface Shift {
  flip: boolean;
  later: number;
}

/** The rest of the mix: the same on both sides. */
export interface Mixed {
  muted: readonly string[];
  alone: readonly string[];
  /** Decibels more than the balance has. */
  more: Readonly<Record<string, number>>;
  pan: Readonly<Record<string, number>>;
}

export type Shifts = Readonly<Record<string, Shift>>;

export const NOTHING: Shift = { flip: false, later: 0 };

/** As the files came: nothing is done to them. */
export const asCame = (tracks: readonly Heard[]): Shifts =>
  Object.fromEntries(tracks.map((t) => [t.channel, NOTHING]));

/** As the plan has its tracks. */
export const asPlanned = (tracks: readonly Heard[]): Shifts =>
  Object.fromEntries(tracks.map((t) => [t.channel, { flip: t.flip, later: t.later }]));

/** As a table of aligning has them; what it says nothing of stays as it came. */
export const asAligned = (tracks: readonly Heard[], rows: readonly AlignRow[]): Shifts => {
  const told = new Map(rows.map((r) => [r.channel, r]));
  return Object.fromEntries(
    tracks.map(({ channel }) => {
      const row = told.get(channel);
      return [channel, row && !row.why_not ? { flip: row.flip, later: row.later } : NOTHING];
    }),
  );
};

/** What is muted in the balance is off, unless it is wanted alone. */
export const mixOf = (tracks: readonly Heard[]): Mixed => ({
  muted: tracks.filter((t) => !t.heard).map((t) => t.channel),
  alone: [],
  more: {},
  pan: {},
});

export const isOn = (mix: Mixed, channel: string): boolean =>
  mix.alone.length ? mix.alone.includes(channel) : !mix.muted.includes(channel);

/** In the order of the tracks. */
export function waysOf(tracks: readonly Heard[], shifts: Shifts, mix: Mixed, trim_db = 0): Way[] {
  return tracks.map((t) => ({
    ...(shifts[t.channel] ?? NOTHING),
    db: t.gain_db + (mix.more[t.channel] ?? 0) + trim_db,
    pan: mix.pan[t.channel] ?? t.pan,
    side: t.side,
    on: isOn(mix, t.channel),
  }));
}

/** Nothing is heard of these: another take is. */
export const silent = (tracks: readonly Heard[]): Way[] =>
  tracks.map(({ pan, side }) => ({ ...NOTHING, db: 0, pan, side, on: false }));

export const same = (a: Shifts, b: Shifts): boolean =>
  Object.keys(a).every((c) => a[c]?.flip === b[c]?.flip && a[c]?.later === b[c]?.later);

/** How much quieter each side is played so that both are as loud as the softer, decibels. */
export function trims(a_db: number, b_db: number): [number, number] {
  const least = Math.min(a_db, b_db);
  return [least - a_db, least - b_db];
}

/**
 * Mean power of what is heard, decibels: each channel by its way, equal power panned, both sides
 * added. `sound` holds the channels of one part in the order of the ways.
 */
export function loudness(
  parts: readonly (readonly Float32Array[])[],
  ways: readonly Way[],
): number {
  let sum = 0;
  let count = 0;
  for (const sound of parts) {
    const long = sound[0]?.length ?? 0;
    const out = [new Float64Array(long), new Float64Array(long)] as const;
    for (const [n, way] of ways.entries()) if (way.on) mixed(out, sound[n], way);
    for (const side of out) for (const v of side) sum += v * v;
    count += long;
  }
  return 10 * Math.log10(sum / Math.max(count, 1) + 1e-12);
}

function mixed(
  out: readonly [Float64Array, Float64Array],
  from: Float32Array | undefined,
  way: Way,
) {
  if (!from) return;
  const size = (way.flip ? -1 : 1) * 10 ** (way.db / 20);
  const turn = ((way.pan / 100 + 1) * Math.PI) / 4;
  const [left, right] = way.side ? [size, -size] : [size * Math.cos(turn), size * Math.sin(turn)];
  const late = Math.round(way.later);
  for (let k = late; k < from.length; k++) {
    const v = from[k - late] as number;
    out[0][k] = (out[0][k] as number) + left * v;
    out[1][k] = (out[1][k] as number) + right * v;
  }
}
