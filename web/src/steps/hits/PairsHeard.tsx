/** Every pair on a drum that counts: the verdict as measured beside the plan's, with its numbers. */
import { useState } from "react";
import type { PairHits } from "../../api/types";
import { dbText, signedText, sumText } from "../../core/units";
import { Tick } from "../../parts/fields/Tick";
import { Mark, VerdictWord } from "../../parts/Mark";

const LIGHT = ["no matter", "behind", "together"];

/** What is settled comes first, then what wants attention or wanted it by the plan. */
const rank = (p: PairHits) =>
  p.settled
    ? 0
    : !LIGHT.includes(p.measured)
      ? 1
      : !LIGHT.includes(p.planned)
        ? 2
        : p.measured === "together"
          ? 3
          : 4;

export function PairsHeard({ pairs }: { pairs: PairHits[] }) {
  const [all, setAll] = useState(false);
  const shown = pairs.filter((p) => all || (p.counts && rank(p) < 4));
  return (
    <div className="min-w-0">
      <Tick checked={all} onTake={setAll}>
        <span className="text-[0.85rem]">also what does not matter</span>
      </Tick>
      {!shown.length && <p className="mt-2 text-soft">No pair on it matters in this balance.</p>}
      <ul aria-label="Pairs as measured" className="mt-1 divide-y divide-hair text-[0.9rem]">
        {[...shown]
          .sort((a, b) => rank(a) - rank(b))
          .map((p) => (
            <Row key={`${p.a} ${p.b}`} pair={p} />
          ))}
      </ul>
    </div>
  );
}

function Row({ pair: p }: { pair: PairHits }) {
  const [wired = 0] = p.wired_db;
  const [flipped = 0] = p.flipped_db;
  return (
    <li className="py-1.5" data-heard={`${p.a}-${p.b}`} data-settled={p.settled}>
      <p className="flex flex-wrap items-center gap-x-2">
        <b className="num">
          {p.a} {p.b}
        </b>
        <VerdictWord verdict={p.measured} />
        <Was pair={p} />
        <ByTape pair={p} />
      </p>
      <p className="num text-[0.8rem] text-soft">
        body {sumText(wired)} dB, flipped {sumText(flipped)}
        {p.delay_ms !== null &&
          `; ${signedText(p.delay_ms, 2, "")} ms ± ${(p.interval_ms ?? 0).toFixed(2)}`}
        {p.wired_db.length > 2 &&
          `; attack ${dbText(p.wired_db[1] ?? 0)}, air ${dbText(p.wired_db[2] ?? 0)}`}
      </p>
      {p.why && <p className="text-[0.8rem] text-latetext">{p.why}</p>}
    </li>
  );
}

/** Milliseconds the second is later than the first; a minus as it is set. */
/** Where the hits say other than the plan. */
function Was({ pair: p }: { pair: PairHits }) {
  if (p.planned === p.measured) return <span className="text-[0.8rem] text-soft">as planned</span>;
  return (
    <span className="inline-flex items-center gap-1 text-[0.8rem] text-soft">
      {p.settled ? "settled; the plan:" : "the plan:"}
      <Mark verdict={p.planned} size={11} /> {p.planned}
    </span>
  );
}

/** How it stands by the tape, where one was held and it says something else. */
function ByTape({ pair: p }: { pair: PairHits }) {
  if (!p.stands || p.stands === p.measured) return null;
  return (
    <span className="inline-flex items-center gap-1 text-[0.8rem] text-soft">
      by the tape: <Mark verdict={p.stands} size={11} /> {p.stands}
    </span>
  );
}
