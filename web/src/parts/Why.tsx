/** The formulas behind a pair's numbers, with their values and where they come from. */
import { useState } from "react";
import type { Focus } from "../api/types";

export function Why({ focus }: { focus: Focus }) {
  const [open, setOpen] = useState(false);
  return (
    <details className="text-[0.85rem]" onToggle={(e) => setOpen(e.currentTarget.open)}>
      <summary className="font-semibold text-snare">Why these numbers</summary>
      <dl className="mt-1 space-y-1.5">
        {(open ? focus.why : []).map((row) => (
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
