/** The rules behind the starting layouts, as a table anybody can read. */
import type { BriefOut } from "../../api/types";

export function Rules({ rows }: { rows: BriefOut["rules"] }) {
  return (
    <details className="mt-5">
      <summary className="font-semibold">Every rule, {rows.length} of them</summary>
      <table className="mt-2 w-full text-[0.82rem]">
        <thead className="text-left text-soft">
          <tr>
            <th className="font-normal">Question</th>
            <th className="font-normal">Answer</th>
            <th className="font-normal">About</th>
            <th className="text-right font-normal">Weight</th>
            <th className="pl-3 font-normal">Because</th>
          </tr>
        </thead>
        <tbody className="divide-y divide-hair">
          {rows.map((r) => (
            <tr key={`${r.question} ${r.answer} ${r.about} ${r.because}`}>
              <td>{r.question}</td>
              <td>{r.answer}</td>
              <td>{r.about}</td>
              <td className="num text-right">{r.weight > 0 ? `+${r.weight}` : r.weight}</td>
              <td className="pl-3">{r.because}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="mt-1 text-[0.8rem] text-soft">
        Weights add up. They are common practice put into numbers from memory; change an answer and
        see what moves.
      </p>
    </details>
  );
}
