/** How many pairs have each verdict: shape, word and number; to read, or to choose by. */
import { memo } from "react";
import type { Counts, Verdict } from "../api/types";
import { MEANING, VERDICTS } from "../core/words";
import { Hint, Told } from "./fields/Hint";
import { Mark } from "./Mark";

const countOf = (counts: Counts, v: Verdict) => counts[v.replaceAll(" ", "_") as keyof Counts];

export const VerdictCounts = memo(function VerdictCounts({ counts }: { counts: Counts }) {
  const left = counts.left_on_purpose;
  return (
    <ul className="flex flex-wrap gap-x-3.5 gap-y-1 text-[0.83rem]" aria-label="Pairs by verdict">
      {VERDICTS.map((v) => (
        <li key={v} className="inline-flex" data-count={v}>
          <Told words={MEANING[v]} className="inline-flex items-center gap-1.5">
            <Mark verdict={v} size={12} />
            {v} <span className="num">{countOf(counts, v)}</span>
          </Told>
        </li>
      ))}
      {left > 0 && (
        <li className="text-soft">
          left on purpose <span className="num">{left}</span>
        </li>
      )}
    </ul>
  );
});

interface Sieve {
  counts: Counts;
  /** None chosen is all of them. */
  chosen: readonly Verdict[];
  onChoose: (verdicts: Verdict[]) => void;
}

/** The same, each to be pressed: only pairs of the verdicts pressed stand out. */
export function VerdictSieve({ counts, chosen, onChoose }: Sieve) {
  const left = counts.left_on_purpose;
  return (
    <fieldset className="flex flex-wrap items-center gap-1 text-[0.77rem]">
      <legend className="sr-only">Only pairs with these verdicts</legend>
      {VERDICTS.map((v) => {
        const on = chosen.includes(v);
        return (
          <Hint key={v} words={MEANING[v]}>
            <button
              type="button"
              data-count={v}
              aria-pressed={on}
              onClick={() => onChoose(on ? chosen.filter((c) => c !== v) : [...chosen, v])}
              className={`inline-flex items-center gap-1 rounded-md border px-1 py-0.5 ${on ? "border-ink bg-card font-semibold" : "border-hair"}`}
            >
              <Mark verdict={v} size={12} />
              {v} <span className="num">{countOf(counts, v)}</span>
            </button>
          </Hint>
        );
      })}
      {left > 0 && (
        <span className="text-soft">
          left on purpose <span className="num">{left}</span>
        </span>
      )}
    </fieldset>
  );
}
