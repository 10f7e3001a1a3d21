/** Two versions against each other, open or blind. */
import { verdictOf } from "../../../core/blind";
import { Pick } from "../../../parts/fields/Pick";
import type { Side } from "../../../parts/hearing";
import { type Listened, type Names, VERSIONS, type Version } from "./useListening";

const SIDES: Side[] = ["A", "B"];

interface Props {
  on: Listened;
  names: Names;
}

export function TwoAgainst({ on, names }: Props) {
  const { two, setTwo, test } = on;
  return (
    <section aria-label="Two against each other" className="border-t border-hair pt-3">
      <div className="flex flex-wrap items-end gap-3">
        {SIDES.map((side) => (
          <Pick
            key={side}
            label={`${side} is`}
            value={two[side]}
            options={VERSIONS}
            names={names}
            disabled={test.blind !== null}
            onTake={(v) => setTwo({ ...two, [side]: v as Version })}
          />
        ))}
        <Buttons on={on} />
      </div>
      {test.blind && <BlindTest on={on} />}
      <p className="mt-2 text-[0.8rem] text-soft">
        Keys: 1 to 5 hear a version, A, B and X switch, the space bar stops and starts.
      </p>
    </section>
  );
}

function Buttons({ on }: { on: Listened }) {
  const { two, hear, hearX, heard, test } = on;
  return (
    <>
      {SIDES.map((side) => (
        <button
          key={side}
          type="button"
          className="btn"
          onClick={() => hear(side, two[side])}
          aria-pressed={heard === side}
        >
          Hear {side}
        </button>
      ))}
      {test.blind ? (
        <button type="button" className="btn" onClick={hearX} aria-pressed={heard === "X"}>
          Hear X
        </button>
      ) : (
        <button type="button" className="btn" disabled={two.A === two.B} onClick={test.begin}>
          Blind test
        </button>
      )}
    </>
  );
}

function BlindTest({ on }: { on: Listened }) {
  const { blind, last, answer, end } = on.test;
  if (!blind) return null;
  return (
    <div className="mt-3 flex flex-wrap items-center gap-3" data-blind={blind.given}>
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
    </div>
  );
}
