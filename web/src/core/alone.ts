/** What a reading says where no server answers: the difference, and about what a hand does of it. */
import type { AskRow, Told } from "../api/types";

export interface Alone {
  /** No tape reads that here: it is typed again. */
  cannot: boolean;
  good: boolean;
  words: Told;
  moves: Told[];
}

export function aloneOf(ask: AskRow, metres: number): Alone {
  const [least, most] = ask.tape_m;
  if (metres < least) return cannot("A tape reads more than nothing: type it again.");
  if (metres > most) return cannot("Nothing here is further apart than {}: type it again.", most);
  const off = metres - ask.target_m;
  const size = Math.abs(off);
  const good = size <= ask.tolerance_m;
  const where = off > 0 ? ["high", "far"] : ["low", "near"];
  const words = good ? "As it should be." : `{} too ${where[ask.to === null ? 0 : 1]}`;
  return {
    cannot: false,
    good,
    words: { text: words, lengths_m: [size], whole: false },
    moves: good
      ? []
      : ask.ways.map((w) => ({
          text: `${off > 0 ? w.closer : w.further}, about.`,
          lengths_m: [size * w.per_m],
          whole: true,
        })),
  };
}

const cannot = (text: string, ...lengths_m: number[]): Alone => ({
  cannot: true,
  good: false,
  words: { text, lengths_m, whole: false },
  moves: [],
});
