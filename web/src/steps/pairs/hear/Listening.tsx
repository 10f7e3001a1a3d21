/** Five versions of a pair at one loudness: heard by a press or a key, and two held against each other. */
import { useMemo } from "react";
import type { Example, PairRow } from "../../../api/types";
import { Slide } from "../../../parts/fields/Slide";
import { TwoAgainst } from "./TwoAgainst";
import { usePlayer } from "./useExample";
import { type Listened, type Names, useListening, VERSIONS, type Version } from "./useListening";

function namesOf(row: PairRow): Names {
  return {
    a: `${row.a} alone`,
    b: `${row.b} alone`,
    wired: "both as wired",
    flipped: "one flipped",
    aligned: "both aligned",
  };
}

export function Listening({ example, row }: { example: Example; row: PairRow }) {
  const { player, bad } = usePlayer(example);
  const on = useListening(player);
  const names = useMemo(() => namesOf(row), [row]);
  if (bad) return <p role="alert">{bad}</p>;
  if (!player) return <p className="text-soft">Fetching the sounds…</p>;
  return (
    <div className="space-y-3">
      <p className="rounded-lg border border-hair bg-card px-3 py-2 text-[0.85rem]">
        <b>Start quiet.</b> Drums have sharp peaks: turn your speakers or headphones down first, and
        rest your ears. All versions are equally loud.
      </p>
      {example.words && (
        <p className="text-[0.88rem] font-semibold text-latetext">{example.words}</p>
      )}
      {!on.test.blind && <Five on={on} names={names} />}
      <StopAndLevel on={on} names={names} />
      <TwoAgainst on={on} names={names} />
    </div>
  );
}

interface Props {
  on: Listened;
  names: Names;
}

function Five({ on, names }: Props) {
  return (
    <fieldset className="flex flex-wrap gap-1.5">
      <legend className="sr-only">Hear</legend>
      {VERSIONS.map((v, i) => (
        <button
          key={v}
          type="button"
          data-hear={v}
          aria-pressed={on.heard === v}
          className={on.heard === v ? "btn-main px-3 py-1" : "btn px-3 py-1"}
          onClick={() => on.hear(v, v)}
        >
          <span className="num mr-1.5 opacity-60">{i + 1}</span>
          {names[v]}
        </button>
      ))}
    </fieldset>
  );
}

function StopAndLevel({ on, names }: Props) {
  const { heard, volume, loud, stop } = on;
  return (
    <div className="flex flex-wrap items-center gap-3">
      <button type="button" className="btn" onClick={stop} disabled={!heard}>
        Stop
      </button>
      <div className="flex items-center gap-2 text-[0.88rem]">
        <span aria-hidden="true">Level</span>
        <Slide
          className="w-36"
          label="Level"
          low={0}
          high={1}
          step={0.05}
          value={volume}
          onShow={loud}
          onTake={loud}
        />
      </div>
      <span className="text-[0.82rem] text-soft" aria-live="polite" data-heard={heard ?? ""}>
        {heard ? `Hearing ${names[heard as Version] ?? heard}` : "Silent"}
      </span>
    </div>
  );
}
