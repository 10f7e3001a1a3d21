/** The chart as a table: every mic with its tapes and its place. */
import { lengthText, type Ruler, unitMark } from "../../core/units";
import { firstDrum } from "../../core/words";
import { TAPES_HIGH } from "../../parts/curves/Tapes";
import { useEditorPart, useLit } from "../../parts/editing";
import { useMe } from "../../parts/me";

export function MicTable() {
  const doc = useEditorPart((s) => s.doc);
  const board = useEditorPart((s) => s.board);
  const lit = useLit();
  const ruler: Ruler = useMe();
  const column = (kind: "snare" | "kick") =>
    board?.sources.findIndex((s) => s.id === firstDrum(doc, kind).id) ?? -1;
  const [snare, kick] = [column("snare"), column("kick")];
  const unit = unitMark(ruler);
  return (
    <div className="overflow-auto px-3" style={{ height: TAPES_HIGH }}>
      <table className="w-full text-[0.88rem]">
        <caption className="sr-only">Mics, distances and places</caption>
        <thead className="text-left text-soft">
          <tr>
            {[
              "Mic",
              "Name",
              `Snare${unit}`,
              `Kick${unit}`,
              `Height${unit}`,
              `Right${unit}`,
              `Front${unit}`,
            ].map((h) => (
              <th key={h} scope="col" className="pr-3 font-normal">
                {h}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {doc.mics.map((m) => {
            const row = board?.mic_ids.indexOf(m.id) ?? -1;
            const tape = board?.tape_m[row];
            const [x, y, z] = m.position_m;
            const numbers = [tape?.[snare], tape?.[kick], z, x, y];
            return (
              <tr key={m.id} className={m.id === lit.selected ? "bg-tint" : ""}>
                <th scope="row" className="text-left">
                  <button
                    type="button"
                    className="num font-bold underline"
                    onClick={() => lit.select(m.id)}
                  >
                    {m.id}
                  </button>
                </th>
                <td>{m.name}</td>
                {numbers.map((v, i) => (
                  <td key={i} className="num">
                    {v === undefined ? "…" : lengthText(v, ruler)}
                  </td>
                ))}
              </tr>
            );
          })}
        </tbody>
      </table>
    </div>
  );
}
