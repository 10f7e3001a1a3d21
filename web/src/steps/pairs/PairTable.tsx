/** The pairs as a table: sorted by any column, sifted like the grid, to be taken as CSV. */
import { useState } from "react";
import type { PairRow, Verdict } from "../../api/types";
import { byColumn, type Column } from "../../core/pairList";
import { dbText, msText, sumText } from "../../core/units";
import { bodySums, counted } from "../../core/words";
import { useEditorPart } from "../../parts/editing";
import { VerdictWord } from "../../parts/Mark";
import { usePairRows } from "./data";

interface Props {
  source: string | null;
  sought: (a: string, b: string, verdict: Verdict) => boolean;
  onOpen: (a: string, b: string, source: string) => void;
}

const COLUMNS: [Column, string][] = [
  ["pair", "Pair"],
  ["source", "Drum"],
  ["verdict", "Verdict"],
  ["delay", "Δt, ms"],
  ["level", "Level, dB"],
  ["body", "Body, dB"],
  ["flipped", "Flipped, dB"],
];

export function PairTable({ source, sought, onOpen }: Props) {
  const layout = useEditorPart((s) => s.out.id);
  const saved = useEditorPart((s) => s.saved === "saved");
  const [by, setBy] = useState<{ column: Column; down: boolean }>({
    column: "verdict",
    down: true,
  });
  const found = usePairRows(source);
  if (found.error && !found.data) return <p role="alert">{found.error.message}</p>;
  if (!found.data) return <p className="text-soft">Computing…</p>;
  const rows = byColumn(found.data, by.column, by.down).filter((r) => sought(r.a, r.b, r.verdict));
  return (
    <div>
      <p className="mb-1 flex items-center gap-3 text-[0.82rem] text-soft">
        {rows.length} of {counted(found.data.length, "pair")}
        <a
          className="font-semibold text-snare underline"
          href={`/api/layouts/${layout}/pairs.csv`}
          download
        >
          Take as CSV
        </a>
        {!saved && "as last saved"}
      </p>
      <table className="w-full text-[0.8rem] [&_td]:pr-2 [&_tbody_th]:pr-2">
        <caption className="sr-only">Pairs, worst first</caption>
        <thead className="text-left">
          <tr>
            {COLUMNS.map(([column, name]) => (
              <ColumnHead
                key={column}
                name={name}
                sorted={by.column === column ? (by.down ? "descending" : "ascending") : null}
                onSort={() => setBy({ column, down: by.column === column ? !by.down : true })}
              />
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map((r) => (
            <Row key={`${r.a} ${r.b}`} row={r} onOpen={onOpen} />
          ))}
        </tbody>
      </table>
    </div>
  );
}

function ColumnHead(props: {
  name: string;
  sorted: "ascending" | "descending" | null;
  onSort: () => void;
}) {
  const { name, sorted, onSort } = props;
  return (
    <th scope="col" aria-sort={sorted ?? undefined} className="sticky top-0 bg-paper pr-2 pb-0.5">
      <button
        type="button"
        className={`font-semibold ${sorted ? "text-ink" : "text-soft"}`}
        onClick={onSort}
      >
        {name}
        {sorted && <span aria-hidden="true">{sorted === "descending" ? " ↓" : " ↑"}</span>}
      </button>
    </th>
  );
}

function Row({ row: r, onOpen }: { row: PairRow; onOpen: Props["onOpen"] }) {
  return (
    <tr>
      <th scope="row" className="text-left">
        <button type="button" className="num underline" onClick={() => onOpen(r.a, r.b, r.source)}>
          {r.a} {r.b}
        </button>
      </th>
      <td>{r.source}</td>
      <td>
        <VerdictWord verdict={r.verdict} />
        {r.could_tip && <span className="block text-[0.75rem] text-soft">or {r.could_tip}</span>}
      </td>
      <td className="num">
        {msText(Math.abs(r.delay_s))} <span className="text-soft">±{msText(r.interval_s)}</span>
      </td>
      <td className="num">{dbText(r.level_difference_db)}</td>
      {r.sign ? (
        <>
          <td className="num">{sumText(r.body_db)}</td>
          <td className="num">{sumText(r.flipped_body_db)}</td>
        </>
      ) : (
        <td className="num" colSpan={2}>
          {bodySums(r)
            .map((s) => sumText(s.db))
            .join(" or ")}
        </td>
      )}
    </tr>
  );
}
