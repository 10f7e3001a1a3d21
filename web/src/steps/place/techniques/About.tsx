/** What a technique gives, what to watch and listen for, and the usual caution. */
import type { Standing, Technique } from "../../../api/types";
import { lengthWithUnit, type Ruler } from "../../../core/units";

export function About({ technique }: { technique: Technique }) {
  const rows = [
    ["Gives", technique.gives],
    ["Watch for", technique.watch_for],
    ["Listen for", technique.listen_for],
  ] as const;
  return (
    <div className="space-y-2 text-[0.88rem]">
      <dl className="space-y-1">
        {rows.map(([name, words]) => (
          <div key={name}>
            <dt className="inline font-bold">{name}: </dt>
            <dd className="inline">{words}</dd>
          </div>
        ))}
      </dl>
      {technique.care && (
        <p className="rounded-md border border-late p-2 text-[0.83rem]">{technique.care}</p>
      )}
    </div>
  );
}

/** What must be equal, as it measures now. */
export function Promises({ rows, ruler }: { rows: Standing["equal"]; ruler: Ruler }) {
  if (!rows.length) return null;
  return (
    <table className="w-full text-[0.83rem]" aria-label="What must be equal">
      <tbody>
        {rows.map((e) => (
          <tr key={`${e.a} ${e.b} ${e.on}`} data-equal={e.on}>
            <th scope="row" className="text-left font-normal">
              {e.a === e.b ? e.a : `${e.a}, ${e.b}`} on {e.on}
            </th>
            <td className="num text-right font-semibold">
              {lengthWithUnit(e.difference_m, ruler)} apart
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
