/** The kit chart as a table: every part with its size, place and heads. */
import type { KitBoard } from "../../api/types";
import { centreOf, isDrum, type Part, partsOf } from "../../core/kitParts";
import { INCH, lengthText, type Ruler, unitMark } from "../../core/units";
import { useEditorPart } from "../../parts/editing";
import { Heads } from "../../parts/Heads";
import { useMe } from "../../parts/me";
import { useChosen } from "./chosen";

interface Props {
  board: KitBoard | undefined;
  onChoose: (id: string) => void;
}

function headWords(part: Part): string {
  if (!isDrum(part)) return "";
  const one = (h: { finish?: string; plies?: number }) => `${h.finish} ${h.plies}-ply`;
  const far = part.far_head === null ? "none" : one(part.far_head ?? {});
  return `${one(part.head ?? {})} / ${far}${part.port ? ", port" : ""}`;
}

const columns = (unit: string) => [
  "Part",
  "Kind",
  "Inches",
  `Height${unit}`,
  `Right${unit}`,
  `Front${unit}`,
  "Heads",
  "Damping",
  "Place known to",
];

export function KitTable({ board, onChoose }: Props) {
  const chosen = useChosen();
  const doc = useEditorPart((s) => s.doc);
  const ruler: Ruler = useMe();
  return (
    <div className="h-full overflow-auto px-4 pb-2">
      <table className="w-full text-[0.86rem] narrow:min-w-[44rem]">
        <caption className="sr-only">Drums and cymbals, sizes and places</caption>
        <Heads names={columns(unitMark(ruler))} />
        <tbody>
          {partsOf(doc).map((p) => (
            <Row
              key={p.id}
              part={p}
              known_m={board?.tape.parts.find((d) => d.id === p.id)?.plan_m}
              chosen={p.id === chosen}
              onChoose={onChoose}
            />
          ))}
        </tbody>
      </table>
    </div>
  );
}

function Row(props: {
  part: Part;
  known_m: number | undefined;
  chosen: boolean;
  onChoose: (id: string) => void;
}) {
  const { part, known_m } = props;
  const ruler: Ruler = useMe();
  const [x, y, z] = centreOf(part);
  const inches = part.diameter_m / INCH;
  return (
    <tr className={props.chosen ? "bg-tint" : ""}>
      <th scope="row" className="text-left">
        <button
          type="button"
          className="font-bold underline"
          onClick={() => props.onChoose(part.id)}
        >
          {part.name}
        </button>
      </th>
      <td>{part.kind}</td>
      <td className="num">
        {inches.toFixed(inches % 1 < 0.05 ? 0 : 1)}
        {isDrum(part) ? ` × ${(part.depth_m / INCH).toFixed(1)}` : ""}
      </td>
      {[z, x, y].map((v, i) => (
        <td key={i} className="num">
          {lengthText(v, ruler)}
        </td>
      ))}
      <td>{headWords(part)}</td>
      <td>{isDrum(part) ? (part.damping ?? []).join(", ") : ""}</td>
      <td className="num">{known_m === undefined ? "…" : `± ${lengthText(known_m, ruler)}`}</td>
    </tr>
  );
}
