/** The readings taken, newest first, against the plan. */
import type { KitBoard, Layout } from "../../../api/types";
import { partOf } from "../../../core/kitParts";
import { lengthText, lengthWithUnit, type Ruler, unitMark } from "../../../core/units";
import { useMe } from "../../../parts/me";
import { useForgetTape } from "./useTape";

type Reading = KitBoard["tape"]["readings"][number];

const STATE = {
  fits: ["fits", "text-ring"],
  misfit: ["does not fit, left out", "text-hollow"],
  doubtful: ["in doubt", "text-latetext"],
  unsure: ["no longer sure", "text-latetext"],
} as const;

export function Readings({ rows, doc }: { rows: readonly Reading[]; doc: Layout }) {
  const unit = unitMark(useMe());
  if (!rows.length)
    return (
      <p className="text-soft">
        Each reading moves the drawing at once: five are enough to begin with, because what is not
        measured stays as it is drawn.
      </p>
    );
  return (
    <div className="overflow-y-auto">
      <table className="w-full text-[0.86rem]">
        <caption className="sr-only">Tape readings against the plan</caption>
        <thead className="sticky top-0 bg-panel text-left text-soft">
          <tr>
            {["Between", `Tape${unit}`, `Plan${unit}`, "Off", "", "Forget"].map((h) => (
              <th key={h} className="font-normal">
                {h === "Forget" ? <span className="sr-only">{h}</span> : h}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {[...rows].reverse().map((r) => (
            <Row key={`${r.a} ${r.b}`} reading={r} doc={doc} />
          ))}
        </tbody>
      </table>
    </div>
  );
}

function Row({ reading, doc }: { reading: Reading; doc: Layout }) {
  const { a, b, off_m } = reading;
  const forget = useForgetTape();
  const ruler: Ruler = useMe();
  const name = (id: string | null) => (id === null ? "floor" : (partOf(doc, id)?.name ?? id));
  const [words, colour] = STATE[reading.state];
  return (
    <tr data-reading={`${a} ${b ?? "ground"}`}>
      <th scope="row" className="text-left font-normal">
        {name(a)} – {name(b)}
      </th>
      <td className="num font-semibold">{lengthText(reading.metres, ruler)}</td>
      <td className="num">{lengthText(reading.says_m, ruler)}</td>
      <td className="num">
        {off_m > 0.0005 ? "+" : ""}
        {lengthWithUnit(off_m, ruler)}
      </td>
      <td className={`font-semibold ${colour}`}>{words}</td>
      <td>
        <button
          type="button"
          className="text-soft underline"
          aria-label={`Forget ${name(a)} to ${name(b)}`}
          onClick={() => forget(a, b)}
        >
          forget
        </button>
      </td>
    </tr>
  );
}
