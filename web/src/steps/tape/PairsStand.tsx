/** Pairs whose verdict is another as they stand, or is not sure. */
import type { AtKit } from "../../api/types";
import { Mark } from "../../parts/Mark";

export function PairsStand({ compared }: { compared: AtKit["compared"] }) {
  return (
    <div>
      <h3 className="text-[1rem]">Pairs, as they stand</h3>
      <p className="text-[0.9rem]" data-compared>
        {compared.words}
      </p>
      <ul aria-label="Verdicts as they stand" className="mt-1 space-y-1 text-[0.88rem]">
        {compared.pairs.slice(0, MOST_ROWS).map((p) => (
          <li key={`${p.a} ${p.b}`} className="flex flex-wrap items-center gap-1.5">
            <b className="num w-16">
              {p.a}–{p.b}
            </b>
            <Verdict of={p.planned} />
            {p.stands !== p.planned && (
              <>
                <span>planned, now</span> <Verdict of={p.stands} now />
              </>
            )}
            {p.could && <span className="text-soft">could be {p.could}</span>}
            <span className="num text-soft">
              {p.delay_ms.toFixed(2)} ± {p.half_ms.toFixed(2)} ms
            </span>
          </li>
        ))}
      </ul>
      {compared.pairs.length > MOST_ROWS && (
        <p className="text-[0.85rem] text-soft">
          and {compared.pairs.length - MOST_ROWS} more; measure on, and most of them settle.
        </p>
      )}
    </div>
  );
}

function Verdict({ of, now = false }: { of: Pair["planned"]; now?: boolean }) {
  return (
    <span className={`inline-flex items-center gap-1 ${now ? "font-semibold" : ""}`}>
      <Mark verdict={of} /> {of}
    </span>
  );
}

type Pair = AtKit["compared"]["pairs"][number];
const MOST_ROWS = 12;
