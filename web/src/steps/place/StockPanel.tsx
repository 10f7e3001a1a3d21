/** What the locker lacks for this layout, and how much of it is used; still while mics move. */
import { memo } from "react";
import { Link } from "react-router";
import type { Stock } from "../../api/types";
import { useEditorPart, useLit } from "../../parts/editing";
import { useStock } from "../../parts/stock";

export const StockPanel = memo(function StockPanel() {
  const studio = useEditorPart((s) => s.out.studio_id);
  const stock = useStock().data;
  if (!stock) return null;
  return (
    <section className="border-t border-hair pt-3" aria-label="From the locker">
      <h3 className="mb-1 flex items-baseline justify-between text-[0.95rem]">
        From the locker
        <Link to={`/studios/${studio}/locker`} className="text-[0.82rem] font-normal underline">
          Open it
        </Link>
      </h3>
      <p className="num text-[0.82rem] text-soft">{usedWords(stock)}</p>
      {stock.lacks.length === 0 ? (
        <p className="text-[0.88rem] text-ring">Nothing is short.</p>
      ) : (
        <ul className="mt-1 space-y-1 text-[0.88rem]" role="alert">
          {stock.lacks.map((l) => (
            <Lack key={l.words} lack={l} />
          ))}
        </ul>
      )}
    </section>
  );
});

/** How many of how many, and how long it takes; only what there is to say. */
function usedWords(stock: Stock): string {
  const used = Object.entries(stock.used)
    .filter(([, [, there]]) => (there ?? 0) > 0)
    .map(([what, [used, there]]) => `${what} ${used}/${there}`);
  const minutes = stock.minutes ? [`about ${stock.minutes} min`] : [];
  return [...used, ...minutes].join(", ");
}

function Lack({ lack }: { lack: Stock["lacks"][number] }) {
  const lit = useLit();
  return (
    <li data-lack={lack.kind} className="flex gap-1.5">
      <span aria-hidden="true" className="font-bold text-hollow">
        !
      </span>
      <span>
        {lack.words}{" "}
        {lack.mics.slice(0, 6).map((m) => (
          <button
            key={m}
            type="button"
            className="num mr-1 text-[0.8rem] underline"
            onClick={() => lit.select(m)}
          >
            {m}
          </button>
        ))}
      </span>
    </li>
  );
}
