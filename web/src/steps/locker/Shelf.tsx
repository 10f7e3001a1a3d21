/** One kind of things in a table. */

import { Heads } from "../../parts/Heads";
import { useMe } from "../../parts/me";
import { type Kind, type Row, summaryOf } from "./rows";

interface Props {
  kind: Kind;
  title: string;
  heads: string[];
  rows: Row[];
  chosen: string | null;
  onChoose: (id: string) => void;
  onAdd: () => void;
}

export function Shelf(props: Props) {
  const { kind, title, heads, rows, chosen, onChoose } = props;
  const add = `Add to ${title.toLowerCase()}`;
  return (
    <section aria-labelledby={`head-${kind}`}>
      <div className="flex items-center gap-3">
        <h2 id={`head-${kind}`} className="text-lg">
          {title}
        </h2>
        <button type="button" className="btn px-2 py-0.5 text-[0.82rem]" onClick={props.onAdd}>
          {add}
        </button>
      </div>
      {rows.length === 0 ? (
        <p className="text-[0.9rem] text-soft">Nothing here yet.</p>
      ) : (
        <div className="narrow:overflow-x-auto">
          <table className="mt-1 w-full text-[0.88rem]">
            <Heads names={heads} />
            <tbody>
              {rows.map((r) => (
                <OneRow key={r.id} kind={kind} row={r} on={chosen === r.id} onChoose={onChoose} />
              ))}
            </tbody>
          </table>
        </div>
      )}
    </section>
  );
}

function OneRow(props: { kind: Kind; row: Row; on: boolean; onChoose: (id: string) => void }) {
  const { kind, row, on, onChoose } = props;
  const me = useMe();
  return (
    <tr data-row={row.id} className={`border-t border-hair ${on ? "bg-tint" : ""}`}>
      <th scope="row" className="py-0.5 text-left">
        <button type="button" className="font-semibold underline" onClick={() => onChoose(row.id)}>
          {row.name}
        </button>
      </th>
      <td className="num font-semibold">{row.count}</td>
      {summaryOf(kind, row, me).map((text, i) => (
        <td key={i} className="pr-3">
          {text}
        </td>
      ))}
    </tr>
  );
}
