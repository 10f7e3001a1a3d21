/** Verdicts and moves in the units somebody reads, each direction in its own word. */
import { expect, it } from "vitest";
import type { Judged } from "../api/types";
import { headOf, moveOf } from "./judged";

const hand = {
  two_fingers_m: 0.035,
  three_fingers_m: 0.055,
  hand_m: 0.19,
  fist_m: 0.09,
  card_m: 0.0004,
};
const cm = { units: "cm", hand } as never;
const feet = { units: "ft-in", hand } as never;

it.each([
  ["too far", "Bring it 3.2 cm closer", "Bring it 1\u00bc\u2033 closer"],
  ["too near", "Take it 3.2 cm further away", "Take it 1\u00bc\u2033 further away"],
  ["too high", "3.2 cm too high", "1\u00bc\u2033 too high"],
  ["too low", "3.2 cm too low", "1\u00bc\u2033 too low"],
] as const)("says what is %s", (where, metric, inches) => {
  const judged = { where, off_m: -0.032, words: "" } as Judged;
  expect(headOf(judged, cm)).toBe(metric);
  expect(headOf(judged, feet)).toBe(inches);
});

it("leaves what needs no length as the core words it", () => {
  expect(headOf({ where: "", off_m: 0, words: "Equal within 0.3 cm." } as Judged, cm)).toBe(
    "Equal within 0.3 cm.",
  );
});

it("tells a move with what stays and what goes", () => {
  const move = { do: "Shift it", size_m: 0.05, aside: "to the left" };
  const others = [
    ["the snare", 0.01],
    ["the kick", -0.021],
  ];
  expect(moveOf({ ...move, others } as never, cm)).toBe(
    "Shift it 5.0 cm to the left; the snare stays within 1.0 cm, the kick is then 2.1 cm too near.",
  );
  expect(moveOf({ ...move, aside: "", others: [] } as never, cm)).toBe("Shift it 5.0 cm.");
});
