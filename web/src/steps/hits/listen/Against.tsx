/** Two states of the tracks against each other, open or blind, one as loud as the other. */
import { BlindAnswers, SIDES } from "../../../parts/BlindAnswers";
import { Tick } from "../../../parts/fields/Tick";
import type { Side } from "../../../parts/hearing";
import type { Listened } from "./useListen";
import { nameOf } from "./useSides";

export function Against({ on, looped }: { on: Listened; looped: boolean }) {
  const { sides, test, hearsX } = on;
  const heard = (side: Side) => !hearsX && sides.side === side;
  return (
    <section aria-label="Two against each other" className="flex flex-wrap items-center gap-2">
      {SIDES.map((side) => (
        <button
          key={side}
          type="button"
          data-side={side}
          aria-pressed={heard(side)}
          className={`${heard(side) ? "btn-main" : "btn"} px-3 py-1`}
          onClick={() => on.hear(side)}
        >
          <span className="num mr-1.5 font-bold">{side}</span>
          {nameOf(sides, side)}
        </button>
      ))}
      {test.blind ? (
        <BlindTest on={on} />
      ) : (
        <button
          type="button"
          className="btn"
          disabled={nameOf(sides, "A") === nameOf(sides, "B")}
          onClick={test.begin}
        >
          Blind test
        </button>
      )}
      {looped && (
        <Tick checked={on.alike} onTake={on.setAlike}>
          <span className="text-[0.85rem]">equally loud</span>
        </Tick>
      )}
      <span className="text-[0.8rem] text-soft pointer-coarse:hidden max-sm:hidden">
        Keys: A, B{test.blind && ", X"}; the space bar plays and stops.
      </span>
    </section>
  );
}

function BlindTest({ on }: { on: Listened }) {
  const { blind } = on.test;
  if (!blind) return null;
  return (
    <div className="flex flex-wrap items-center gap-2" data-blind={blind.given}>
      <button
        type="button"
        aria-pressed={on.hearsX}
        className={`${on.hearsX ? "btn-main" : "btn"} px-3 py-1`}
        onClick={on.hearX}
      >
        X, one of them
      </button>
      <BlindAnswers test={on.test} />
    </div>
  );
}
