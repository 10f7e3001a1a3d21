/** How many pairs have each verdict: shape, word and number. */
import type { Counts } from "../api/types";
import { MEANING, VERDICTS } from "../core/words";
import { Mark } from "./Mark";

export function VerdictCounts({ counts }: { counts: Counts }) {
  const left = counts.left_on_purpose;
  return (
    <ul className="flex flex-wrap gap-x-3.5 gap-y-1 text-[0.83rem]" aria-label="Pairs by verdict">
      {VERDICTS.map((v) => (
        <li key={v} className="inline-flex items-center gap-1.5" data-count={v} title={MEANING[v]}>
          <Mark verdict={v} size={12} />
          {v} <span className="num">{counts[v.replaceAll(" ", "_") as keyof Counts]}</span>
        </li>
      ))}
      {left > 0 && (
        <li className="text-soft">
          left on purpose <span className="num">{left}</span>
        </li>
      )}
    </ul>
  );
}
