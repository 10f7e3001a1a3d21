/** Two states of the tracks that are held against each other, and the mix they share. */
import { useCallback, useEffect, useMemo, useState } from "react";
import type { Heard } from "../../../api/types";
import type { Span } from "../../../core/spans";
import {
  asPlanned,
  loudness,
  type Mixed,
  mixOf,
  type Shift,
  type Shifts,
  same,
  silent,
  trims,
  waysOf,
} from "../../../core/ways";
import type { Side } from "../../../parts/hearing";
import type { Deck, OtherDeck } from "./decks";
import type { Parts } from "./useSound";

interface State {
  /** The take it is of. */
  take: number;
  /** What it began as. */
  name: string;
  began: Shifts;
  shifts: Shifts;
}

const state = (take: number, name: string, shifts: Shifts): State => ({
  ...{ take, name, shifts },
  began: shifts,
});

const planned = ({ take, heard }: Deck) => state(take, PLANNED, asPlanned(heard.tracks));

const PLANNED = "as planned";
const LEVEL: Record<Side, number> = { A: 0, B: 0 };

export function useSides(own: Deck) {
  const [other, setOther] = useState<OtherDeck | null>(null);
  const [sides, setSides] = useState(() => ({ A: planned(own), B: planned(own) }));
  const [mix, setMix] = useState<Mixed>(() => mixOf(own.heard.tracks));
  const [side, setSide] = useState<Side>("A");
  const [trim, setTrim] = useState(LEVEL);
  const deckOf = (of: Side) => (other && sides[of].take === other.take ? other : own);
  /** What is heard of: the open take, the other one, or both. */
  const [takeA, takeB] = [sides.A.take, sides.B.take];
  const decks = useMemo(
    () => [own, other].filter((d) => d !== null).filter((d) => [takeA, takeB].includes(d.take)),
    [own, other, takeA, takeB],
  );
  const ways = useMemo(() => {
    const of = ({ take, shifts }: State, down: number) =>
      decks.flatMap(({ take: its, heard: { tracks } }) =>
        its === take ? waysOf(tracks, shifts, mix, down) : silent(tracks),
      );
    return { A: of(sides.A, trim.A), B: of(sides.B, trim.B) };
  }, [decks, sides, mix, trim]);
  const begin = (name: string, shifts: Shifts) =>
    setSides((old) => ({ ...old, [side]: state(old[side].take, name, shifts) }));
  /** A side is of another take from now on; a side that was of a third one is of the open one. */
  const put = (of: Side, deck: Deck | OtherDeck) => {
    const more = "against" in deck ? deck : other;
    setSides((old) => {
      const rest = of === "A" ? "B" : "A";
      const kept = [own.take, more?.take].includes(old[rest].take) ? old[rest] : planned(own);
      return { ...old, [rest]: kept, [of]: planned(deck) };
    });
    setOther(more);
    if (deck === own) return;
    setMix((old) => joined(old, own.heard.tracks, deck.heard.tracks));
  };
  const shift = useCallback(
    (channel: string, to: Shift) =>
      setSides((old) => {
        const now = old[side];
        return { ...old, [side]: { ...now, shifts: { ...now.shifts, [channel]: to } } };
      }),
    [side],
  );
  const deck = deckOf(side);
  return {
    own,
    deck,
    deckOf,
    decks,
    sides,
    side,
    setSide,
    mix,
    setMix,
    ways,
    begin,
    put,
    shift,
    setTrim,
  };
}

export type Sides = ReturnType<typeof useSides>;

/** One mix for both takes, by the names of channels; those of the other alone as its balance has them. */
function joined(mix: Mixed, own: readonly Heard[], more: readonly Heard[]): Mixed {
  const known = new Set(own.map((t) => t.channel));
  const { muted } = mixOf(more.filter((t) => !known.has(t.channel)));
  return { ...mix, muted: [...new Set([...mix.muted, ...muted])] };
}

/** What a side is called: what it began as, and whether it was changed since; of two takes, which. */
export function nameOf({ sides, decks, deckOf }: Sides, side: Side): string {
  const { name, began, shifts } = sides[side];
  const told = same(began, shifts) ? name : `${name}, changed`;
  return decks.length > 1 ? `${deckOf(side).name}, ${told}` : told;
}

/** The channels that are flipped or delayed otherwise than the plan has their tracks. */
export function changedFrom(tracks: readonly Heard[], shifts: Shifts): string[] {
  return tracks
    .filter((t) => shifts[t.channel]?.flip !== t.flip || shifts[t.channel]?.later !== t.later)
    .map((t) => t.channel);
}

const REST_MS = 250;

/** Moments by which sides are made equally loud: of each a stretch of every take that is heard. */
export type Moments = readonly (readonly Span[])[];

/** Both sides as loud as each other at those moments, worked out when all rests. */
export function useAlike(sides: Sides, parts: Parts, moments: Moments, on: boolean) {
  const { decks, mix, setTrim } = sides;
  const { A, B } = sides.sides;
  // biome-ignore lint/correctness/useExhaustiveDependencies: of which take a side is, it says itself
  useEffect(() => {
    if (!on || !moments.length) return setTrim(LEVEL);
    let gone = false;
    const weighed = async (side: Side) => {
      const deck = sides.deckOf(side);
      const n = decks.indexOf(deck);
      const spans = moments.flatMap((m) => m[n] ?? []);
      const { shifts } = sides.sides[side];
      return loudness(await parts(n, spans), waysOf(deck.heard.tracks, shifts, mix));
    };
    const timer = setTimeout(() => {
      Promise.all([weighed("A"), weighed("B")]).then(
        ([a, b]) => {
          if (gone) return;
          const [downA, downB] = trims(a, b);
          setTrim({ A: downA, B: downB });
        },
        () => undefined, // why no sound came is told where it is played
      );
    }, REST_MS);
    return () => {
      gone = true;
      clearTimeout(timer);
    };
  }, [decks, A, B, mix, parts, moments, on, setTrim]);
}
