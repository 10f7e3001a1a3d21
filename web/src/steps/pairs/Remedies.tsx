/** What can be done about a pair, best first: tried on the chart, taken, with its side effects. */
import type { PairDepth, Remedy } from "../../api/types";
import { remedied } from "../../core/edits";
import { lengthWithUnit, sumText } from "../../core/units";
import { Told } from "../../parts/fields/Hint";
import { Mark } from "../../parts/Mark";
import { useMe } from "../../parts/me";
import { useWorklist } from "../../parts/worklist";
import { lineFor } from "./todo/words";
import type { OnTrial } from "./useTrial";

const SHORT: Record<Remedy["kind"], string> = {
  flip: "Flip",
  swing: "Swing",
  "same height": "Same height",
  "snare only": "Snare only",
  equal: "Move, at once",
  clear: "Move, no dip",
  line: "Move, fullest",
  delay: "Delay",
};

/** Nearer than this a body is called the same. */
const SAME_DB = 0.05;
const MOST = 5;

/** Best first; before them the one that is a line of the list to do, so that the two say one thing. */
function useInOrder({ a, b, remedies }: PairDepth): Remedy[] {
  const lines = useWorklist().data?.lines ?? [];
  const line = lines[lineFor(lines, a, b)];
  const listed = (r: Remedy) =>
    r.kind === line?.kind && remedied(r).every((id) => line.of.includes(id));
  return [...remedies.filter(listed), ...remedies.filter((r) => !listed(r))];
}

export function Remedies({ depth, ...trial }: { depth: PairDepth } & OnTrial) {
  const remedies = useInOrder(depth);
  if (!remedies.length)
    return (
      <p className="text-[0.85rem] text-soft">Nothing can be moved or flipped: all is held.</p>
    );
  return (
    <ol className="space-y-1" aria-label="Remedies, best first">
      {remedies.map((r) => (
        <OneRemedy key={`${r.kind} ${r.words}`} remedy={r} {...trial} />
      ))}
    </ol>
  );
}

type One = { remedy: Remedy } & OnTrial;

function OneRemedy({ remedy: r, ...trial }: One) {
  const on = trial.tried === r;
  return (
    <li
      data-remedy={r.kind}
      className={`rounded-lg border px-2 py-1.5 text-[0.82rem] ${on ? "border-ink bg-card" : "border-hair"}`}
    >
      <div className="flex items-start gap-2">
        <Told words={r.verdict} className="mt-0.5 shrink-0">
          <Mark verdict={r.verdict} size={12} />
          <span className="sr-only">{r.verdict}: </span>
        </Told>
        <WhatItDoes remedy={r} />
        <TryOrTake remedy={r} {...trial} />
      </div>
    </li>
  );
}

/** "Body +2.1 dB. ", or nothing where it stays as it is. */
function bodyWords(db: number | null): string {
  if (db === null || Math.abs(db) < SAME_DB) return "";
  return `Body ${sumText(db)} dB. `;
}

function WhatItDoes({ remedy: r }: { remedy: Remedy }) {
  const ruler = useMe();
  return (
    <span className="min-w-0 flex-1">
      <span className="font-semibold">{r.words}</span>{" "}
      {r.steps.length > 0 && (
        <span className="num text-[0.78rem]">
          {r.steps.map((s) => `${s.way} ${lengthWithUnit(s.metres, ruler)}`).join(", ")}.{" "}
        </span>
      )}
      <span className="text-soft">
        {bodyWords(r.body_gain_db)}
        <Effects rows={r.improves} word="Better" />
        <Effects rows={r.spoils} word="Worse" />
        {!r.improves.length && !r.spoils.length && "No other pair changes. "}
        {[r.breaks, r.blocked].filter(Boolean).join(" ")}
      </span>
    </span>
  );
}

function TryOrTake({ remedy: r, tried, onTry, onTake }: One) {
  const on = tried === r;
  return (
    <span className="flex shrink-0 flex-col gap-1">
      <button
        type="button"
        className="btn px-2 py-0.5 text-[0.78rem]"
        aria-pressed={on}
        aria-label={`${on ? "Back" : "Try"}: ${SHORT[r.kind]} ${remedied(r)[0]}`}
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
  );
}

function Effects({ rows, word }: { rows: Remedy["improves"]; word: string }) {
  if (!rows.length) return null;
  const named = rows.slice(0, MOST).map((r) => `${r.a}-${r.b}`);
  const more = rows.length > MOST ? ` and ${rows.length - MOST} more` : "";
  return (
    <span data-effect={word}>
      <Told words={rows.map((r) => `${r.a}-${r.b}: ${r.before} → ${r.after}`).join("\n")}>
        {word}: {named.join(", ")}
        {more}.
      </Told>{" "}
    </span>
  );
}
