/** Two states of the tracks that are held against each other, and the mix they share. */
import { useCallback, useEffect, useMemo, useState } from "react";
import type { Heard, TakeHeard } from "../../../api/types";
import type { Span } from "../../../core/spans";
import {
  asPlanned,
  loudness,
  type Mixed,
  mixOf,
  type Shift,
  type Shifts,
  same,
  trims,
  waysOf,
} from "../../../core/ways";
import type { Side } from "../../../parts/hearing";
import type { Parts } from "./useSound";

interface State {
  /** What it began as. */
  name: string;
  began: Shifts;
  shifts: Shifts;
}

const state = (name: string, shifts: Shifts): State => ({ name, began: shifts, shifts });

const PLANNED = "as planned";
const LEVEL: Record<Side, number> = { A: 0, B: 0 };

export function useSides({ tracks }: TakeHeard) {
  const [sides, setSides] = useState(() => {
    const planned = state(PLANNED, asPlanned(tracks));
    return { A: planned, B: planned };
  });
  const [mix, setMix] = useState<Mixed>(() => mixOf(tracks));
  const [side, setSide] = useState<Side>("A");
  const [trim, setTrim] = useState(LEVEL);
  const ways = useMemo(
    () => ({
      A: waysOf(tracks, sides.A.shifts, mix, trim.A),
      B: waysOf(tracks, sides.B.shifts, mix, trim.B),
    }),
    [tracks, sides, mix, trim],
  );
  const begin = (name: string, shifts: Shifts) =>
    setSides((old) => ({ ...old, [side]: state(name, shifts) }));
  const shift = useCallback(
    (channel: string, to: Shift) =>
      setSides((old) => {
        const now = old[side];
        return { ...old, [side]: { ...now, shifts: { ...now.shifts, [channel]: to } } };
      }),
    [side],
  );
  return { tracks, sides, side, setSide, mix, setMix, ways, begin, shift, setTrim };
}

export type Sides = ReturnType<typeof useSides>;

/** What a side is called: what it began as, and whether it was changed since. */
export function nameOf(sides: Sides, side: Side): string {
  const { name, began, shifts } = sides.sides[side];
  return same(began, shifts) ? name : `${name}, changed`;
}

/** The channels that are flipped or delayed otherwise than the plan has their tracks. */
export function changedFrom(tracks: readonly Heard[], shifts: Shifts): string[] {
  return tracks
    .filter((t) => shifts[t.channel]?.flip !== t.flip || shifts[t.channel]?.later !== t.later)
    .map((t) => t.channel);
}

const MOST_WEIGHED = 3;
const REST_MS = 250;

/** Both sides as loud as each other on the hits that are looped, worked out when all rests. */
export function useAlike(sides: Sides, parts: Parts, spans: readonly Span[] | null, on: boolean) {
  const { tracks, mix, setTrim } = sides;
  const { A, B } = sides.sides;
  useEffect(() => {
    if (!on || !spans) return setTrim(LEVEL);
    let gone = false;
    const timer = setTimeout(() => {
      parts(spans.slice(0, MOST_WEIGHED)).then(
        (sound) => {
          if (gone) return;
          const [a, b] = [A, B].map((s) => loudness(sound, waysOf(tracks, s.shifts, mix)));
          const [downA, downB] = trims(a ?? 0, b ?? 0);
          setTrim({ A: downA, B: downB });
        },
        () => undefined, // why no sound came is told where it is played
      );
    }, REST_MS);
    return () => {
      gone = true;
      clearTimeout(timer);
    };
  }, [tracks, A, B, mix, parts, spans, on, setTrim]);
}
