/** Two states of the tracks against each other, open or blind, one as loud as the other. */
import { BlindAnswers, SIDES } from "../../../parts/BlindAnswers";
import { Tick } from "../../../parts/fields/Tick";
import type { Side } from "../../../parts/hearing";
import type { Listened } from "./useListen";
import { nameOf } from "./useSides";

export function Against({ on }: { on: Listened }) {
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
          <span className="num mr-1 font-bold">{side}</span> {nameOf(sides, side)}
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
      {on.played.moments.length > 0 && (
        <Tick checked={on.alike} onTake={on.setAlike}>
          <span className="text-[0.85rem]">equally loud</span>
        </Tick>
      )}
      <span className="text-[0.8rem] text-soft pointer-coarse:hidden max-sm:hidden">
        Keys: A, B{test.blind && ", X"}; the space bar plays and stops.
      </span>
      <TwoTakes on={on} />
    </section>
  );
}

/** What is heard of two takes beside what was moved. */
function TwoTakes({ on: { sides, played } }: { on: Listened }) {
  if (sides.decks.length < 2) return null;
  const { apart_db: apart } = played.program;
  return (
    <p className="w-full text-[0.85rem] text-soft" data-two-takes={apart}>
      Two performances: what was played or tuned otherwise is heard as well.
      {apart != null &&
        ` Every stroke stands against one that is as hard for its take, within ${apart.toFixed(1)} dB.`}
    </p>
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
