/** What can be done about a pair, best first: tried on the chart, taken, with its side effects. */
import type { PairDepth, Remedy } from "../../api/types";
import { lengthWithUnit } from "../../core/units";
import { useEditorPart } from "../../parts/editing";
import { Mark } from "../../parts/Mark";
import { useMe } from "../../parts/me";

interface Props {
  depth: PairDepth;
  tried: Remedy | null;
  onTry: (r: Remedy | null) => void;
  onTake: (r: Remedy) => void;
}

const SHORT: Record<Remedy["kind"], string> = {
  flip: "Flip",
  swing: "Swing",
  "same height": "Same height",
  "snare only": "Snare only",
  equal: "Move, at once",
  line: "Move, fullest",
  delay: "Delay",
};

/** Nearer than this a body is called the same. */
const SAME_DB = 0.05;

export function Remedies({ depth, tried, onTry, onTake }: Props) {
  const ruler = useMe();
  if (!depth.remedies.length)
    return (
      <p className="text-[0.85rem] text-soft">Nothing can be moved or flipped: all is held.</p>
    );
  return (
    <ol className="space-y-1" aria-label="Remedies, best first">
      {depth.remedies.map((r) => {
        const on = tried === r;
        const key = `${r.kind} ${r.mics.map((m) => m.id).join(" ")} ${r.words}`;
        return (
          <li
            key={key}
            data-remedy={r.kind}
            className={`rounded-lg border px-2 py-1.5 text-[0.82rem] ${on ? "border-ink bg-card" : "border-hair"}`}
          >
            <div className="flex items-start gap-2">
              <span
                className="mt-0.5 inline-flex shrink-0 items-center gap-1 font-semibold"
                title={r.verdict}
              >
                <Mark verdict={r.verdict} size={12} />
                <span className="sr-only">{r.verdict}: </span>
              </span>
              <span className="min-w-0 flex-1">
                <span className="font-semibold">{r.words}</span>{" "}
                {r.steps.length > 0 && (
                  <span className="num text-[0.78rem]">
                    {r.steps.map((s) => `${s.way} ${lengthWithUnit(s.metres, ruler)}`).join(", ")}.{" "}
                  </span>
                )}
                <span className="text-soft">
                  {r.body_gain_db !== null &&
                    Math.abs(r.body_gain_db) >= SAME_DB &&
                    `Body ${r.body_gain_db > 0 ? "+" : "−"}${Math.abs(r.body_gain_db).toFixed(1)} dB. `}
                  <Effects rows={r.improves} word="Better" />
                  <Effects rows={r.spoils} word="Worse" />
                  {!r.improves.length && !r.spoils.length && "No other pair changes. "}
                  {r.blocked}
                </span>
              </span>
              <span className="flex shrink-0 flex-col gap-1">
                <button
                  type="button"
                  className="btn px-2 py-0.5 text-[0.78rem]"
                  aria-pressed={on}
                  aria-label={`${on ? "Back" : "Try"}: ${SHORT[r.kind]} ${r.mics[0]?.id}`}
                  onClick={() => onTry(on ? null : r)}
                >
                  {on ? "Back" : "Try"}
                </button>
                <button
                  type="button"
                  className="btn px-2 py-0.5 text-[0.78rem]"
                  aria-label={`Take: ${r.words}`}
                  onClick={() => onTake(r)}
                >
                  Take
                </button>
              </span>
            </div>
          </li>
        );
      })}
    </ol>
  );
}

const MOST = 5;

function Effects({ rows, word }: { rows: Remedy["improves"]; word: string }) {
  if (!rows.length) return null;
  const named = rows.slice(0, MOST).map((r) => `${r.a}-${r.b}`);
  const more = rows.length > MOST ? ` and ${rows.length - MOST} more` : "";
  return (
    <span
      data-effect={word}
      title={rows.map((r) => `${r.a}-${r.b}: ${r.before} → ${r.after}`).join("\n")}
    >
      {word}: {named.join(", ")}
      {more}.{" "}
    </span>
  );
}

/** Which of two schools the layout follows: it breaks ties between remedies. */
export function School(props: {
  value: "placed" | "aligned";
  onTake: (v: "placed" | "aligned") => void;
}) {
  const mics = useEditorPart((s) => s.still.mics.length);
  if (!mics) return null;
  return (
    <label className="flex items-center gap-1.5 text-[0.8rem] text-soft">
      School
      <select
        className="field py-0 text-[0.8rem]"
        value={props.value}
        onChange={(e) => props.onTake(e.target.value as "placed" | "aligned")}
      >
        <option value="placed">placed until it is in phase</option>
        <option value="aligned">aligned after recording</option>
      </select>
    </label>
  );
}
