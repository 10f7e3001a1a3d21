/** What a reading says where no server answers: the difference, and about what a hand does of it. */
import type { AskRow, Told } from "../api/types";

export interface Alone {
  good: boolean;
  words: Told;
  moves: Told[];
}

export function aloneOf(ask: AskRow, metres: number): Alone {
  const off = metres - ask.target_m;
  const size = Math.abs(off);
  const good = size <= ask.tolerance_m;
  const where = off > 0 ? ["high", "far"] : ["low", "near"];
  const words = good ? "As it should be." : `{} too ${where[ask.to === null ? 0 : 1]}`;
  return {
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
