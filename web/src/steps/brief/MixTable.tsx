/** Mix two: for each part of the work, whose pieces to take. */
import type { Plan } from "../../api/types";
import { mixed, PARTS, type PartName, type Picks, piecesOf } from "../../core/mix";
import { useTechniques } from "../place/techniques/data";

interface Props {
  plans: Plan[];
  picks: Picks;
  onPick: (part: PartName, from: number) => void;
  onTake: () => void;
}

export function MixTable({ plans, picks, onPick, onTake }: Props) {
  const list = useTechniques().data;
  const name = (id: string) => list?.find((t) => t.id === id)?.name ?? id;
  const mics = mixed(plans, picks).reduce(
    (n, p) => n + (list?.find((t) => t.id === p.technique)?.mics ?? 1),
    0,
  );
  const say = (plan: Plan, part: PartName) => {
    const seen = piecesOf(plan, part).map((p) => name(p.technique));
    return [...new Set(seen)].join(", ") || "nothing";
  };
  return (
    <section className="mt-5" aria-label="Mix">
      <h2 className="mb-1 text-lg">Mix them</h2>
      <table className="w-full table-fixed text-[0.85rem]">
        <thead>
          <tr className="text-left text-soft">
            <th className="w-32 font-normal">Part</th>
            {plans.map((p, i) => (
              <th key={p.title} className="font-normal">
                {i + 1} {p.title}
              </th>
            ))}
            <th className="w-24 font-normal">nobody's</th>
          </tr>
        </thead>
        <tbody className="divide-y divide-hair border-y border-hair">
          {PARTS.map(([part]) => (
            <tr key={part}>
              <th scope="row" className="py-1 text-left font-semibold">
                {part}
              </th>
              {[...plans.keys(), -1].map((from) => (
                <td key={from} className="py-1 pr-2">
                  <label className="flex gap-1.5">
                    <input
                      type="radio"
                      name={`mix ${part}`}
                      aria-label={`${part} from ${from < 0 ? "nobody" : `layout ${from + 1}`}`}
                      checked={(picks[part] ?? 0) === from}
                      onChange={() => onPick(part, from)}
                    />
                    <span className="min-w-0">
                      {from < 0 ? "" : say(plans[from] as Plan, part)}
                    </span>
                  </label>
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
      <button type="button" className="btn mt-2" onClick={onTake}>
        Take the mix, {mics} mics
      </button>
    </section>
  );
}
