import { expect, it } from "vitest";
import type { Change } from "../api/types";
import { changeLines } from "./changeWords";
import type { Ruler } from "./units";

const CM = { units: "cm" } as Ruler;
const UP: Change = {
  what: "OR",
  words: "moved",
  moved_m: 0.1,
  snare_m: [1.271, 1.57],
  kick_m: [1.5, 1.25],
};
const FLIP: Change = { what: "SB", words: "flip at the preamp on" };

it("tells each in tape terms", () => {
  const drum = { what: "Snare", words: "moved", moved_m: 0.05 };
  expect(changeLines([FLIP, drum, UP], CM)).toEqual([
    "SB: flip at the preamp on",
    "Snare: moved 5.0 cm",
    "OR: moved 10.0 cm; snare 127.1 cm → 157.0 cm, kick 150.0 cm → 125.0 cm",
  ]);
});

it("tells what became the same of several once, and what differs by a millimetre apart", () => {
  const left = { ...UP, what: "OL" };
  const less: Change = { ...UP, what: "RM", kick_m: [1.5, 1.251] };
  const lines = changeLines([left, FLIP, UP, less], CM);
  expect(lines.map((l) => l.split(":")[0])).toEqual(["OL, OR", "SB", "RM"]);
});
