/** A blind test: X is one of two sounds, nobody says which; answers are counted. */
export interface Blind {
  /** What X is now. */
  x: "A" | "B";
  right: number;
  given: number;
}

export function begun(dice: () => number = Math.random): Blind {
  return { x: dice() < 0.5 ? "A" : "B", right: 0, given: 0 };
}

/** After an answer: counted, and X drawn anew. */
export function answered(test: Blind, answer: "A" | "B", dice: () => number = Math.random): Blind {
  return {
    x: dice() < 0.5 ? "A" : "B",
    right: test.right + (answer === test.x ? 1 : 0),
    given: test.given + 1,
  };
}

/** How often so many right answers, or more, come by guessing: the sum of a binomial's tail. */
export function byLuck(right: number, given: number): number {
  let ways = 1;
  let sum = 0;
  for (let k = 0; k <= given; k++) {
    if (k >= right) sum += ways;
    ways = (ways * (given - k)) / (k + 1);
  }
  return sum / 2 ** given;
}

/** What the count says, in words; below five answers it says nothing. */
export function verdictOf(test: Blind): string {
  if (test.given < 5) return "Give at least five answers.";
  const luck = byLuck(test.right, test.given);
  if (luck <= 0.05) return `You hear it: by luck this comes once in ${Math.round(1 / luck)} times.`;
  return "As good as guessing so far.";
}
