/** The chart as a table: every mic with its tapes and its place. */
import type { Mic } from "../../api/types";
import type { EditorState } from "../../core/editor";
import { lengthText, type Ruler, unitMark } from "../../core/units";
import { firstDrum } from "../../core/words";
import { TAPES_HIGH } from "../../parts/curves/Tapes";
import { useCalmNumbers, useLit, useSelected } from "../../parts/editing";
import { Heads } from "../../parts/Heads";
import { useMe } from "../../parts/me";

const columns = (unit: string) => [
  "Mic",
  "Name",
  `Snare${unit}`,
  `Kick${unit}`,
  `Height${unit}`,
  `Right${unit}`,
  `Front${unit}`,
];

const sameTable = (a: EditorState, b: EditorState) => a.doc === b.doc && a.board === b.board;

export function MicTable() {
  const { doc, board } = useCalmNumbers((s) => s, sameTable);
  const ruler: Ruler = useMe();
  const column = (kind: "snare" | "kick") =>
    board?.sources.findIndex((s) => s.id === firstDrum(doc, kind).id) ?? -1;
  const [snare, kick] = [column("snare"), column("kick")];
  return (
    <div className="overflow-auto px-3 narrow:h-auto!" style={{ height: TAPES_HIGH }}>
      <table className="w-full text-[0.88rem]">
        <caption className="sr-only">Mics, distances and places</caption>
        <Heads names={columns(unitMark(ruler))} />
        <tbody>
          {doc.mics.map((m) => {
            const tape = board?.tape_m[board.mic_ids.indexOf(m.id)];
            return <Row key={m.id} mic={m} tapes={[tape?.[snare], tape?.[kick]]} />;
          })}
        </tbody>
      </table>
    </div>
  );
}

function Row({ mic, tapes }: { mic: Mic; tapes: (number | undefined)[] }) {
  const { select } = useLit();
  const selected = useSelected();
  const ruler: Ruler = useMe();
  const [x, y, z] = mic.position_m;
  return (
    <tr className={mic.id === selected ? "bg-tint" : ""}>
      <th scope="row" className="text-left">
        <button type="button" className="num font-bold underline" onClick={() => select(mic.id)}>
          {mic.id}
        </button>
      </th>
      <td>{mic.name}</td>
      {[...tapes, z, x, y].map((v, i) => (
        <td key={i} className="num">
          {v === undefined ? "…" : lengthText(v, ruler)}
        </td>
      ))}
    </tr>
  );
}
