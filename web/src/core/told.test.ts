/** Sentences of the core in the units somebody reads. */
import { expect, it } from "vitest";
import { worded } from "./told";

const hand = {
  two_fingers_m: 0.035,
  three_fingers_m: 0.055,
  hand_m: 0.19,
  fist_m: 0.09,
  card_m: 0.0004,
};
const cm = { units: "cm", hand } as const;
const feet = { units: "ft-in", hand } as const;
const move = {
  text: "Shift it {} to the left; the kick is then {} too near.",
  lengths_m: [0.05, 0.0214],
  whole: false,
};

it("puts each length where it belongs", () => {
  expect(worded(move, cm)).toBe("Shift it 5.0 cm to the left; the kick is then 2.1 cm too near.");
  expect(worded(move, feet)).toBe("Shift it 2″ to the left; the kick is then 0⅞″ too near.");
});

it("tells what is only known to a centimetre without what is finer", () => {
  expect(worded({ ...move, whole: true }, cm)).toBe(
    "Shift it 5 cm to the left; the kick is then 2 cm too near.",
  );
});

it("leaves a sentence without lengths, or with too few, as it is", () => {
  expect(worded({ text: "All fits.", lengths_m: [], whole: false }, cm)).toBe("All fits.");
  expect(worded({ text: "", lengths_m: [], whole: false }, cm)).toBe("");
  expect(worded({ text: "{} up", lengths_m: [], whole: true }, cm)).toBe("0 cm up");
});
