import { expect, it } from "vitest";
import { changeWords } from "./changeWords";
import type { Ruler } from "./units";

const CM = { units: "cm" } as Ruler;

it.each([
  [{ what: "SB", words: "flip at the preamp on" }, "SB: flip at the preamp on"],
  [{ what: "Snare", words: "moved", moved_m: 0.05 }, "Snare: moved 5.0 cm"],
  [
    { what: "OR", words: "moved", moved_m: 0.1, snare_m: [1.271, 1.57], kick_m: [1.5, 1.25] },
    "OR: moved 10.0 cm; snare 127.1 cm → 157.0 cm, kick 150.0 cm → 125.0 cm",
  ],
] as const)("tells %j as %s", (change, words) => {
  expect(changeWords(structuredClone(change) as never, CM)).toBe(words);
});
