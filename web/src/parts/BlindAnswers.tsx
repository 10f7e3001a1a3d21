/** What X was taken for, how often that was right, and what the count says. */
import { verdictOf } from "../core/blind";
import type { Side, useBlind } from "./hearing";

export const SIDES: Side[] = ["A", "B"];

export function BlindAnswers({ test }: { test: ReturnType<typeof useBlind> }) {
  const { blind, last, answer, end } = test;
  if (!blind) return null;
  return (
    <>
      {SIDES.map((side) => (
        <button
          key={side}
          type="button"
          className="btn-main px-3 py-1"
          onClick={() => answer(side)}
        >
          X is {side}
        </button>
      ))}
      <span className="text-[0.9rem]" aria-live="polite">
        {last} <b className="num">{blind.right}</b> of <b className="num">{blind.given}</b> right.{" "}
        {verdictOf(blind)}
      </span>
      <button type="button" className="font-semibold text-snare underline" onClick={end}>
        End the test
      </button>
    </>
  );
}
