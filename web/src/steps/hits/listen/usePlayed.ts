/** What is played: a drum's hits in a loop, or everything from a second before the first stroke. */
import { useMemo, useState } from "react";
import { type Program, programsOf, programsOfBoth, WHOLE } from "../../../core/programs";
import type { OtherDeck } from "./decks";
import type { Moments, Sides } from "./useSides";

const NOTHING: Program = { what: WHOLE, name: "", loop: false, parts: [] };
const MOST_WEIGHED = 3;

export function usePlayed({ decks }: Sides) {
  const [what, setWhat] = useState("");
  const programs = useMemo(() => {
    const [one, two] = decks;
    if (!one) return [];
    if (!two) return programsOf(one.heard);
    // Of two the second is the other one: it knows which of its strokes stand against which.
    const { against } = two as OtherDeck;
    return programsOfBoth(against, [one.heard.rate_hz, two.heard.rate_hz]);
  }, [decks]);
  const program = programs.find((p) => p.what === what) ?? programs[0] ?? NOTHING;
  /** A few strokes of the drum that is looped; of everything one of each drum. */
  const moments = useMemo((): Moments => {
    if (program.loop) return program.parts.slice(0, MOST_WEIGHED);
    return programs.filter((p) => p.loop).flatMap((p) => p.parts.slice(0, 1));
  }, [program, programs]);
  return { programs, program, setWhat, moments };
}
