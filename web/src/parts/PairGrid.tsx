/** Every pair of mics in one triangle: the worst verdict, or that of a chosen drum. */
import { type KeyboardEvent, useRef } from "react";
import type { Board, Layout, Verdict } from "../api/types";
import { Mark } from "./Mark";

interface Props {
  layout: Layout;
  board: Board;
  /** A source, or null for the worst that matters. */
  source: string | null;
  open: { a: string; b: string } | null;
  left: (a: string, b: string) => boolean;
  onOpen: (a: string, b: string) => void;
}

export function PairGrid({ board, source, open, left, onOpen }: Props) {
  const table = useRef<HTMLTableElement>(null);
  const ids = board.mic_ids;
  const k = source ? board.sources.findIndex((s) => s.id === source) : -1;
  const cell = new Map<string, { verdict: Verdict; drum: string }>();
  board.pair_a.forEach((a, i) => {
    const b = board.pair_b[i] as string;
    const worst = board.worst_source[i] as string;
    const verdict = (k >= 0 ? board.verdict[i]?.[k] : board.worst[i]) as Verdict;
    cell.set(`${a} ${b}`, { verdict, drum: k >= 0 ? (source as string) : worst });
  });
  const size = ids.length > 20 ? 22 : ids.length > 14 ? 26 : 30;
  const onKey = (e: KeyboardEvent, row: number, column: number) => {
    const by = { ArrowUp: [-1, 0], ArrowDown: [1, 0], ArrowLeft: [0, -1], ArrowRight: [0, 1] }[
      e.key
    ];
    if (!by) return;
    e.preventDefault();
    const to = `[data-cell="${row + (by[0] ?? 0)}-${column + (by[1] ?? 0)}"]`;
    table.current?.querySelector<HTMLButtonElement>(to)?.focus();
  };
  return (
    <table ref={table} className="border-separate border-spacing-0.5">
      <caption className="sr-only">Verdict of every pair of mics</caption>
      <tbody>
        {ids.map((b, row) => (
          <tr key={b}>
            <th scope="row" className="num pr-1.5 text-right text-[0.78rem] font-semibold">
              {row > 0 ? b : ""}
            </th>
            {ids.slice(0, row).map((a, column) => {
              const found = cell.get(`${a} ${b}`);
              if (!found) return <td key={a} />;
              const on = open && ((open.a === a && open.b === b) || (open.a === b && open.b === a));
              const kept = left(a, b);
              const words = `${a} with ${b}: ${kept ? "left on purpose, " : ""}${found.verdict}, ${found.drum}`;
              return (
                <td key={a} className="p-0">
                  <button
                    type="button"
                    data-cell={`${row}-${column}`}
                    data-pair={`${a}-${b}`}
                    data-verdict={found.verdict}
                    aria-label={words}
                    title={words}
                    aria-pressed={Boolean(on)}
                    tabIndex={on || (!open && row === 1) ? 0 : -1}
                    onKeyDown={(e) => onKey(e, row, column)}
                    onClick={() => onOpen(a, b)}
                    style={{ width: size, height: size }}
                    className={`grid place-items-center rounded-md border bg-panel ${on ? "border-2 border-ink" : "border-hair"} ${kept ? "opacity-60" : ""}`}
                  >
                    <Mark verdict={found.verdict} size={size > 24 ? 15 : 12} />
                  </button>
                </td>
              );
            })}
            <td className="num pl-1 text-[0.78rem] font-semibold" aria-hidden="true">
              {row < ids.length - 1 ? b : ""}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
