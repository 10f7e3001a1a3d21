/** Lines that were put off or dismissed, with the reason, and the way back. */
import type { Worklist } from "../../../api/types";
import { useTake } from "../../../parts/hands";

export function Aside({ rows }: { rows: Worklist["aside"] }) {
  const take = useTake();
  if (!rows.length) return null;
  return (
    <section className="mt-3" aria-label="Set aside">
      <h3 className="text-[0.9rem] font-semibold text-soft">Set aside</h3>
      <ul className="mt-1 space-y-1 text-[0.85rem]">
        {rows.map((r) => (
          <li key={`${r.kind} ${r.of.join(" ")}`} className="flex gap-2" data-aside={r.kind}>
            <span className="min-w-0 flex-1">
              {r.words || `${r.kind} ${r.of.join(", ")}`}{" "}
              <span className="text-soft">
                {r.reason ? `Dismissed: ${r.reason}` : "Put off."} {r.by} {r.at.slice(0, 10)}
              </span>
            </span>
            <button
              type="button"
              className="shrink-0 font-semibold text-snare underline"
              onClick={() => void take({ do: "bring-back", kind: r.kind, of: r.of })}
            >
              Bring back
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}
