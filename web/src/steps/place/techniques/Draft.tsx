/** A technique before it is taken: on the chart with its verdicts, its numbers to be changed. */
import { useEffect } from "react";
import type { Board, Technique, Took } from "../../../api/types";
import { targetNames } from "../../../core/techniques";
import { spoken } from "../../../core/words";
import { useEditorPart } from "../../../parts/editing";
import { Pick } from "../../../parts/fields/Pick";
import { Mark } from "../../../parts/Mark";
import { useMe } from "../../../parts/me";
import { VerdictCounts } from "../../../parts/VerdictCounts";
import { About, Promises } from "./About";
import { NumberFields } from "./NumberFields";
import { useDraft } from "./useDraft";

interface Props {
  technique: Technique;
  onTaken: (id: string) => void;
  onBack: () => void;
}

/** Escape goes back, but not out of a field. */
function useEscape(onBack: () => void) {
  useEffect(() => {
    const onKey = (e: KeyboardEvent) => {
      const within = e.target instanceof HTMLElement && e.target.closest("input, [role=combobox]");
      if (e.key === "Escape" && !e.defaultPrevented && !within) onBack();
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, [onBack]);
}

export function Draft({ technique, onTaken, onBack }: Props) {
  const ruler = useMe();
  const still = useEditorPart((s) => s.still);
  const { took, bad, target, numbers, take, choose, slide } = useDraft(technique, onTaken);
  useEscape(onBack);
  return (
    <div className="space-y-3" data-draft={technique.id}>
      <header>
        <p className="text-[0.8rem] text-soft">{technique.group}, not taken yet</p>
        <h2 className="text-[1.05rem]">{technique.name}</h2>
      </header>
      <div className="flex gap-2">
        <button type="button" className="btn-main flex-1" disabled={!took} onClick={take}>
          Take it
        </button>
        <button type="button" className="btn" onClick={onBack}>
          Back to the list
        </button>
      </div>
      <Warnings took={took} bad={bad} />
      {technique.takes_target && (
        <Pick
          label="For"
          value={took?.standing?.target ?? target ?? technique.targets[0] ?? ""}
          options={technique.targets}
          names={targetNames(still)}
          onTake={choose}
        />
      )}
      <NumberFields
        rows={technique.numbers}
        values={{ ...took?.standing?.numbers, ...numbers }}
        ruler={ruler}
        onTake={slide}
      />
      <WithIt took={took} technique={technique} />
      <About technique={technique} />
    </div>
  );
}

function Warnings({ took, bad }: { took: Took | null; bad: string }) {
  const blocked = useEditorPart((s) => s.board?.blocked);
  const fresh = took?.standing?.mics ?? [];
  return (
    <>
      {bad && (
        <p role="alert" className="text-[0.88rem] text-hollow">
          {bad}
        </p>
      )}
      {[...(took?.notes ?? []), ...(took?.short ?? [])].map((n) => (
        <p key={n} className="text-[0.85rem] text-latetext">
          {n}
        </p>
      ))}
      {fresh
        .filter((m) => blocked?.[m])
        .map((m) => (
          <p key={m} role="alert" className="text-[0.85rem] text-hollow">
            {m}: {blocked?.[m]}
          </p>
        ))}
    </>
  );
}

/** Its mics, what they keep equal, and the pairs they make. */
function WithIt({ took, technique }: { took: Took | null; technique: Technique }) {
  const ruler = useMe();
  const board = useEditorPart((s) => s.board);
  const fresh = took?.standing?.mics ?? [];
  return (
    <>
      <p className="text-[0.83rem] text-soft">
        {technique.mics === 1 ? "One mic" : `${technique.mics} mics`}: {fresh.join(", ")}; about{" "}
        {Math.round(technique.minutes)} min to set up.
      </p>
      <Promises rows={took?.standing?.equal ?? []} ruler={ruler} />
      {board && took && (
        <section aria-label="Pairs with it">
          <h3 className="mb-1 text-[0.9rem]">All pairs, with it</h3>
          <VerdictCounts counts={board.counts} />
          <Gravest board={board} mics={fresh} />
        </section>
      )}
    </>
  );
}

const MOST = 4;

/** The pairs of the new mics that want most attention, and on which drum. */
function gravestOf(board: Board, mics: string[]) {
  const rows = board.pair_a
    .map((a, i) => ({
      a,
      b: board.pair_b[i] ?? "",
      worst: board.worst[i],
      on: board.worst_source[i],
    }))
    .filter((p) => mics.includes(p.a) || mics.includes(p.b))
    .filter((p) => p.worst === "hollow" || p.worst === "late");
  return rows.sort((x, y) => Number(y.worst === "hollow") - Number(x.worst === "hollow"));
}

function Gravest({ board, mics }: { board: Board; mics: string[] }) {
  const rows = gravestOf(board, mics);
  if (!rows.length)
    return <p className="mt-1 text-[0.83rem] text-ring">None of its pairs is hollow or late.</p>;
  return (
    <ul className="mt-1 space-y-0.5 text-[0.83rem]" aria-label="Its gravest pairs">
      {rows.slice(0, MOST).map((p) => (
        <li key={`${p.a} ${p.b}`} className="flex items-center gap-1.5">
          <Mark verdict={p.worst ?? "no matter"} size={11} />
          <span className="num">
            {p.a}, {p.b}
          </span>{" "}
          {p.worst} on {spoken(board.sources.find((s) => s.id === p.on)?.name ?? p.on ?? "")}
        </li>
      ))}
      {rows.length > MOST && <li className="text-soft">and {rows.length - MOST} more</li>}
    </ul>
  );
}
