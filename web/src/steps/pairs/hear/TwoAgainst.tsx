/** Two versions against each other, open or blind. */
import { BlindAnswers, SIDES } from "../../../parts/BlindAnswers";
import { Pick } from "../../../parts/fields/Pick";
import { type Listened, type Names, VERSIONS, type Version } from "./useListening";

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
      {test.blind && (
        <div className="mt-3 flex flex-wrap items-center gap-3" data-blind={test.blind.given}>
          <BlindAnswers test={test} />
        </div>
      )}
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
