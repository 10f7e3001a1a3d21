/** The formulas behind a pair's numbers, with their values and where they come from. */
import type { Focus } from "../api/types";

export function Why({ focus }: { focus: Focus }) {
  return (
    <details className="text-[0.85rem]">
      <summary className="font-semibold text-snare">Why these numbers</summary>
      <dl className="mt-1 space-y-1.5">
        {focus.why.map((row) => (
          <div key={row.title}>
            <dt className="font-semibold">{row.title}</dt>
            <dd className="num text-[0.78rem] break-words">{row.formula}</dd>
            <dd className="text-[0.78rem] text-soft">{row.source}</dd>
          </div>
        ))}
      </dl>
    </details>
  );
}
