/** The kit chart as a table: every part with its size, place and heads. */
import type { KitBoard } from "../../api/types";
import { lengthText, type Ruler, unitMark } from "../../core/units";
import { useEditorPart } from "../../parts/editing";
import { useMe } from "../../parts/me";
import { centreOf, isDrum, type Part, partsOf } from "./hands";

interface Props {
  board: KitBoard | undefined;
  chosen: string | null;
  onChoose: (id: string) => void;
}

function headWords(part: Part): string {
  if (!isDrum(part)) return "";
  const one = (h: { finish?: string; plies?: number }) => `${h.finish} ${h.plies}-ply`;
  const far = part.far_head === null ? "none" : one(part.far_head ?? {});
  return `${one(part.head ?? {})} / ${far}${part.port ? ", port" : ""}`;
}

export function KitTable({ board, chosen, onChoose }: Props) {
  const doc = useEditorPart((s) => s.doc);
  const ruler: Ruler = useMe();
  const unit = unitMark(ruler);
  return (
    <div className="h-full overflow-auto px-4 pb-2">
      <table className="w-full text-[0.86rem]">
        <caption className="sr-only">Drums and cymbals, sizes and places</caption>
        <thead className="text-left text-soft">
          <tr>
            {[
              "Part",
              "Kind",
              "Inches",
              `Height${unit}`,
              `Right${unit}`,
              `Front${unit}`,
              "Heads",
              "Damping",
              "Place known to",
            ].map((h) => (
              <th key={h} scope="col" className="pr-3 font-normal">
                {h}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {partsOf(doc).map((p) => {
            const [x, y, z] = centreOf(p);
            const known = board?.tape.parts.find((d) => d.id === p.id);
            const inches = p.diameter_m / 0.0254;
            return (
              <tr key={p.id} className={p.id === chosen ? "bg-tint" : ""}>
                <th scope="row" className="text-left">
                  <button
                    type="button"
                    className="font-bold underline"
                    onClick={() => onChoose(p.id)}
                  >
                    {p.name}
                  </button>
                </th>
                <td>{p.kind}</td>
                <td className="num">
                  {inches.toFixed(inches % 1 < 0.05 ? 0 : 1)}
                  {isDrum(p) ? ` × ${(p.depth_m / 0.0254).toFixed(1)}` : ""}
                </td>
                {[z, x, y].map((v, i) => (
                  <td key={i} className="num">
                    {lengthText(v, ruler)}
                  </td>
                ))}
                <td>{headWords(p)}</td>
                <td>{isDrum(p) ? (p.damping ?? []).join(", ") : ""}</td>
                <td className="num">{known ? `± ${lengthText(known.plan_m, ruler)}` : "…"}</td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </div>
  );
}
