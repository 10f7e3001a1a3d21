/** The grid as a table, worst first. */
import type { Board, Verdict } from "../../api/types";
import { VerdictWord } from "../../parts/Mark";

const ORDER: Verdict[] = ["hollow", "late", "ask the ear", "together", "no matter"];

interface Props {
  board: Board;
  source: string | null;
  onOpen: (a: string, b: string, source: string) => void;
}

export function PairTable({ board, source, onOpen }: Props) {
  const k = board.sources.findIndex((s) => s.id === source);
  const rows = board.pair_a
    .map((a, i) => ({
      a,
      b: board.pair_b[i] as string,
      drum: source ?? (board.worst_source[i] as string),
      verdict: (k >= 0 ? board.verdict[i]?.[k] : board.worst[i]) as Verdict,
    }))
    .sort((x, y) => ORDER.indexOf(x.verdict) - ORDER.indexOf(y.verdict));
  return (
    <table className="w-full text-[0.9rem]">
      <caption className="sr-only">Pairs, worst first</caption>
      <thead className="text-left text-soft">
        <tr>
          <th scope="col">Pair</th>
          <th scope="col">Drum</th>
          <th scope="col">Verdict</th>
        </tr>
      </thead>
      <tbody>
        {rows.map((r) => (
          <tr key={`${r.a} ${r.b}`}>
            <th scope="row" className="text-left">
              <button
                type="button"
                className="num underline"
                onClick={() => onOpen(r.a, r.b, r.drum)}
              >
                {r.a} {r.b}
              </button>
            </th>
            <td>{r.drum}</td>
            <td>
              <VerdictWord verdict={r.verdict} />
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
